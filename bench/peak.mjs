// Loaded before a program: writes the most memory it has held, in kilobytes, into the file that DRAWER_PEAK names.
import { writeFileSync } from "node:fs";

process.on("exit", () => writeFileSync(process.env.DRAWER_PEAK, String(process.resourceUsage().maxRSS)));
