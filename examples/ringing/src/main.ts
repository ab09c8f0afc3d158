import { speak } from "drawer/page";
import { choosePanes } from "../../shared/panes.js";

// The drawer beside the form opens a database of its own and binds itself to the page: the element is all that is needed.
choosePanes("notes");

// The same page in German: `?lang=de`.
if (new URLSearchParams(location.search).get("lang") === "de") speak((await import("drawer/de")).de);
