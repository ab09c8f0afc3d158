import { choosePanes } from "../../shared/panes.js";
import { setLanguage } from "drawer/page";

// The drawer beside the form opens a database of its own and binds itself to the page: the element is all that is needed.
choosePanes("notes");

// The same page in German: `?lang=de`.
if (new URLSearchParams(location.search).get("lang") === "de") setLanguage((await import("drawer/de")).de);
