"""LibreOffice in windows, as a test wants it: each line on standard input is a list of JSON, a name and what it needs; each
is answered with one line of JSON. Usage: office-window.py FOLDER"""

import json
import subprocess
import sys
import time

import uno
from com.sun.star.beans import PropertyValue
from com.sun.star.connection import NoConnectException
from com.sun.star.lang import Locale
from com.sun.star.uno import RuntimeException
from com.sun.star.text.ControlCharacter import PARAGRAPH_BREAK
from com.sun.star.text.TextContentAnchorType import AS_CHARACTER

pipe = f"drawer{time.time_ns()}"
office = subprocess.Popen(
    [
        "soffice",
        f"-env:UserInstallation=file://{sys.argv[1]}/window",
        "--nodefault",
        "--norestore",
        "--nologo",
        "--nofirststartwizard",
        f"--accept=pipe,name={pipe};urp;",
    ],
    stdout=subprocess.DEVNULL,
    stderr=subprocess.DEVNULL,
)
local = uno.getComponentContext()
resolver = local.ServiceManager.createInstanceWithContext("com.sun.star.bridge.UnoUrlResolver", local)
for _ in range(240):
    try:
        context = resolver.resolve(f"uno:pipe,name={pipe};urp;StarOffice.ComponentContext")
        break
    except NoConnectException:
        time.sleep(0.5)
create = lambda name: context.ServiceManager.createInstanceWithContext(name, context)
desktop = create("com.sun.star.frame.Desktop")
documents = {}


def new(kind):
    documents[kind] = desktop.loadComponentFromURL(f"private:factory/s{kind}", "_blank", 0, ())


def type_paragraphs(paragraphs):
    text = documents["writer"].Text
    text.setString("\n".join(paragraphs))


def open_file(kind, url):
    documents[kind] = desktop.loadComponentFromURL(url, "_blank", 0, ())


def select_paragraphs(first, last):
    document = documents["writer"]
    parts = [part for part in document.Text if part.supportsService("com.sun.star.text.Paragraph")]
    cursor = document.Text.createTextCursorByRange(parts[first].Start)
    cursor.gotoRange(parts[last].End, True)
    document.CurrentController.select(cursor)


def put_caret(paragraph, offset):
    document = documents["writer"]
    parts = [part for part in document.Text if part.supportsService("com.sun.star.text.Paragraph")]
    cursor = document.Text.createTextCursorByRange(parts[paragraph].Start)
    cursor.goRight(offset, False)
    document.CurrentController.select(cursor)


def select_table(at):
    document = documents["writer"]
    table = document.TextTables.getByIndex(at)
    cursor = table.createCursorByCellName(table.CellNames[0])
    cursor.gotoCellByName(table.CellNames[-1], True)
    document.CurrentController.select(cursor)


def put_picture(url):
    """Puts a picture onto the end of the document, and selects it."""
    document = documents["writer"]
    picture = document.createInstance("com.sun.star.text.TextGraphicObject")
    picture.Graphic = create("com.sun.star.graphic.GraphicProvider").queryGraphic((PropertyValue("URL", 0, url, 0),))
    document.Text.insertTextContent(document.Text.End, picture, False)
    document.CurrentController.select(picture)


def put_picture_in_line(url):
    """Puts a picture into the middle of the first paragraph, and selects that whole."""
    document = documents["writer"]
    cursor = document.Text.createTextCursor()
    cursor.gotoStart(False)
    cursor.goRight(len("Seen "), False)
    picture = document.createInstance("com.sun.star.text.TextGraphicObject")
    picture.Graphic = create("com.sun.star.graphic.GraphicProvider").queryGraphic((PropertyValue("URL", 0, url, 0),))
    picture.AnchorType = AS_CHARACTER
    document.Text.insertTextContent(cursor, picture, False)
    select_paragraphs(0, 0)


def put_cells(rows):
    """Writes into cells, from A1 on; what looks like a date or a percentage is one."""
    document = documents["calc"]
    sheet = document.Sheets.getByIndex(0)
    for y, row in enumerate(rows):
        for x, value in enumerate(row):
            cell = sheet.getCellByPosition(x, y)
            cell.setFormula(value)
            code = "YYYY-MM-DD" if value.count("-") == 2 else "0%" if value.endswith("%") else None
            if code:
                key = document.NumberFormats.queryKey(code, Locale(), False)
                cell.NumberFormat = key if key >= 0 else document.NumberFormats.addNew(code, Locale())


def select_cells(cells):
    document = documents["calc"]
    document.CurrentController.select(document.Sheets.getByIndex(0).getCellRangeByName(cells))


def read_paragraphs():
    """Each paragraph or table of the document: whether it stands in a list, and its text."""
    found = []
    for part in documents["writer"].Text:
        if part.supportsService("com.sun.star.text.Paragraph"):
            bold = any(run.CharWeight > 100 for run in part if run.String)
            found.append({"text": part.String, "list": part.ListLabelString != "" or bool(part.NumberingIsNumber and part.NumberingStyleName), "bold": bold})
        else:
            found.append({"table": [[str(value) for value in row] for row in part.DataArray]})
    return found


def read_cells(cells):
    """Each cell: what it shows, what it holds, and of which kind."""
    document = documents["calc"]
    formats = document.NumberFormats
    area = document.Sheets.getByIndex(0).getCellRangeByName(cells)
    rows = []
    for y in range(area.Rows.Count):
        row = []
        for x in range(area.Columns.Count):
            cell = area.getCellByPosition(x, y)
            row.append(
                {
                    "shown": cell.String,
                    "kind": cell.Type.value.lower(),
                    "value": cell.Value,
                    "format": formats.getByKey(cell.NumberFormat).Type,
                }
            )
        rows.append(row)
    return rows


def type_at(place):
    """Opens a document of Writer's in place of the one before, with what a place stands in, and the caret in mid-sentence there."""
    documents["writer"].close(True)
    new("writer")
    document = documents["writer"]
    text = document.Text
    cursor = text.createTextCursor()
    if place == "table":
        table = document.createInstance("com.sun.star.text.TextTable")
        table.initialize(1, 2)
        text.insertTextContent(text.End, table, False)
        text = table.getCellByName("A1")
        text.setString("Seen near the hut.")
    else:
        lines = ["Before", "", "After"] if place == "empty" else ["Seen near the hut."]
        for at, line in enumerate(lines):
            if at > 0:
                text.insertControlCharacter(text.End, PARAGRAPH_BREAK, False)
            text.insertString(text.End, line, False)
        if place == "list":
            cursor.gotoStart(False)
            cursor.gotoEnd(True)
            cursor.NumberingStyleName = "List 1"
    cursor = text.createTextCursor()
    cursor.gotoStart(False)
    cursor.goRight(len("Before") + 1 if place == "empty" else len("Seen "), False)
    document.CurrentController.select(cursor)


def in_short(text):
    """What stands in a text: paragraphs, tables in brackets, pictures, what is bold between stars, links in angles."""
    parts = []
    for part in text:
        if part.supportsService("com.sun.star.text.Paragraph"):
            shown = "• " if part.NumberingIsNumber and part.NumberingStyleName else ""
            for run in part:
                if run.TextPortionType == "Frame":
                    shown += "(picture)"
                elif run.String:
                    words = f"**{run.String}**" if run.CharWeight > 100 else run.String
                    shown += f"<{words}>" if run.HyperLinkURL else words
            parts.append(shown)
        else:
            rows = {}
            for name in part.CellNames:
                rows.setdefault(name.lstrip("ABCDEFGHIJKLMNOPQRSTUVWXYZ"), []).append(in_short(part.getCellByName(name)))
            parts.append("[" + " / ".join(" | ".join(cells) for cells in rows.values()) + "]")
    return " ¶ ".join(parts)


def read_writer():
    return in_short(documents["writer"].Text)


def clear_cells():
    sheet = documents["calc"].Sheets.getByIndex(0)
    sheet.getCellRangeByName("A1:Z200").clearContents(1023)
    while sheet.DrawPage.Count:
        sheet.DrawPage.remove(sheet.DrawPage.getByIndex(0))


def count_pictures():
    return documents["calc"].Sheets.getByIndex(0).DrawPage.Count


def close():
    for document in documents.values():
        document.close(True)
    desktop.terminate()


def answer(name, words):
    """Does what is asked; what is read while the document is being changed is read again."""
    for attempt in range(50):
        try:
            return globals()[name](*words)
        except RuntimeException:
            if not name.startswith("read_") or attempt == 49:
                raise
            time.sleep(0.1)


try:
    print(json.dumps("ready"), flush=True)
    for line in sys.stdin:
        name, *words = json.loads(line)
        print(json.dumps(answer(name, words)), flush=True)
        if name == "close":
            break
finally:
    office.terminate()
