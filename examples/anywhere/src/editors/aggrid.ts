import {
  CellStyleModule,
  ClientSideRowModelModule,
  createGrid,
  ModuleRegistry,
  TextEditorModule,
  UndoRedoEditModule,
} from "ag-grid-community";
import { changesOf } from "./changes.js";
import { COLUMNS, ROWS } from "./rows.js";

export function show(holder: HTMLElement): void {
  ModuleRegistry.registerModules([
    ClientSideRowModelModule,
    TextEditorModule,
    UndoRedoEditModule,
    CellStyleModule,
  ]);
  holder.style.height = "14rem";
  createGrid(holder, {
    columnDefs: (Object.entries(COLUMNS) as [keyof typeof COLUMNS, string][]).map(([field, headerName]) => ({
      field,
      headerName,
      editable: true,
      width: 120,
    })),
    rowData: ROWS.map((row) => ({ ...row })),
    undoRedoCellEditing: true,
    onCellValueChanged: changesOf(holder),
    ensureDomOrder: true,
  });
}
