// Opens a database with tables of a version after today's, made up for the test, and says which copy it made.
import { openConnection } from "../dist/stores/sqlite/connection.js";
import { prepareTables, UPDATES } from "../dist/stores/sqlite/tables.js";

const database = openConnection(process.argv[2]);
const copy = prepareTables(database, process.argv[2], [
  ...UPDATES,
  (tables) => tables.exec("ALTER TABLE entries ADD COLUMN ring TEXT"),
]);
database.close();
console.log(copy ?? "");
