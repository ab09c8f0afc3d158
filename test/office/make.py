"""Makes documents and workbooks as python-docx, odfpy and openpyxl write them. Usage: make.py FOLDER"""

import datetime
import sys
from pathlib import Path

import docx
from docx.enum.text import WD_BREAK
from docx.oxml import OxmlElement, parse_xml
from docx.oxml.ns import nsdecls, qn
import openpyxl
from openpyxl.styles import Font, PatternFill
from odf import style, text, table, draw
from odf.opendocument import OpenDocumentText, OpenDocumentSpreadsheet

folder = Path(sys.argv[1])


def python_docx():
    document = docx.Document()
    document.add_heading("Field diary", 0)
    document.add_heading("Monday", 1)
    line = document.add_paragraph("The gate was ")
    line.add_run("shut").bold = True
    line.add_run(" at nine").italic = True
    line.add_run().add_break(WD_BREAK.PAGE)
    line.add_run("and open at noon.")
    for style_name in ("List Bullet", "List Bullet 2", "List Bullet", "List Number", "List Number", "List Number 2"):
        document.add_paragraph(f"an item of {style_name}", style=style_name)
    document.add_paragraph("Never in the rain.", style="Intense Quote")
    document.add_paragraph("Nets by ride", style="Caption")
    grid = document.add_table(rows=4, cols=3, style="Table Grid")
    for row in range(4):
        for column in range(3):
            grid.cell(row, column).text = f"r{row}c{column}"
    grid.cell(0, 0).merge(grid.cell(0, 1)).text = "two wide"
    grid.cell(1, 2).merge(grid.cell(2, 2)).text = "two high"
    inner = grid.cell(3, 0).add_table(1, 2)
    inner.cell(0, 0).text = "inside"
    inner.cell(0, 1).text = "beside"
    document.add_paragraph("After the table.")
    document.save(folder / "python-docx.docx")


def list_numbers():
    """Lists whose numbers are overridden, shared and go on, in a docx of python-docx."""
    document = docx.Document()
    numbering = document.part.numbering_part.element
    abstract = parse_xml(
        f"""<w:abstractNum {nsdecls('w')} w:abstractNumId="77"><w:multiLevelType w:val="multilevel"/>
        <w:lvl w:ilvl="0"><w:start w:val="1"/><w:numFmt w:val="upperRoman"/><w:lvlText w:val="%1)"/><w:lvlJc w:val="left"/>
          <w:pPr><w:ind w:left="720" w:hanging="360"/></w:pPr></w:lvl>
        <w:lvl w:ilvl="1"><w:start w:val="1"/><w:numFmt w:val="lowerLetter"/><w:lvlText w:val="(%2)"/><w:lvlJc w:val="left"/>
          <w:pPr><w:ind w:left="1440" w:hanging="360"/></w:pPr></w:lvl>
        <w:lvl w:ilvl="2"><w:start w:val="1"/><w:numFmt w:val="decimal"/><w:isLgl/><w:lvlText w:val="%1.%2.%3"/><w:lvlJc w:val="left"/>
          <w:pPr><w:ind w:left="2160" w:hanging="360"/></w:pPr></w:lvl></w:abstractNum>"""
    )
    numbering.insert(0, abstract)

    def num(number, override=""):
        numbering.append(
            parse_xml(f'<w:num {nsdecls("w")} w:numId="{number}"><w:abstractNumId w:val="77"/>{override}</w:num>')
        )

    num(101)
    num(102)
    num(103, '<w:lvlOverride w:ilvl="0"><w:startOverride w:val="5"/></w:lvlOverride>')

    def item(number, level, words):
        properties = document.add_paragraph(words)._p.get_or_add_pPr()
        properties.append(
            parse_xml(
                f'<w:numPr {nsdecls("w")}><w:ilvl w:val="{level}"/><w:numId w:val="{number}"/></w:numPr>'
            )
        )

    item(101, 0, "first")
    item(101, 0, "second")
    item(101, 1, "second, one")
    item(101, 2, "deep")
    item(101, 2, "deeper")
    document.add_paragraph("Between the lists.")
    item(102, 0, "goes on, for the numbering is shared")
    item(103, 0, "begins at five")
    item(103, 0, "goes on with six")
    document.save(folder / "list-numbers.docx")


def numbered_headings():
    document = docx.Document()
    numbering = document.part.numbering_part.element
    levels = "".join(
        f'<w:lvl w:ilvl="{level}"><w:start w:val="1"/><w:numFmt w:val="decimal"/>'
        f'<w:pStyle w:val="Heading{level + 1}"/><w:lvlText w:val="{text_}"/><w:lvlJc w:val="left"/></w:lvl>'
        for level, text_ in enumerate(["%1.", "%1.%2", "%1.%2.%3"])
    )
    numbering.insert(
        0,
        parse_xml(
            f'<w:abstractNum {nsdecls("w")} w:abstractNumId="88"><w:multiLevelType w:val="multilevel"/>{levels}</w:abstractNum>'
        ),
    )
    numbering.append(parse_xml(f'<w:num {nsdecls("w")} w:numId="201"><w:abstractNumId w:val="88"/></w:num>'))
    for level in (1, 2, 3):
        properties = document.styles[f"Heading {level}"].element.get_or_add_pPr()
        properties.append(
            parse_xml(f'<w:numPr {nsdecls("w")}><w:ilvl w:val="{level - 1}"/><w:numId w:val="201"/></w:numPr>')
        )
    for level, words in ((1, "Weather"), (2, "Wind"), (2, "Rain"), (3, "Showers"), (1, "Birds"), (2, "Rare")):
        document.add_heading(words, level)
        document.add_paragraph(f"About {words.lower()}.")
    document.save(folder / "numbered-headings.docx")


def odfpy():
    document = OpenDocumentText()
    heading = style.Style(name="Heading 1", family="paragraph")
    document.styles.addElement(heading)
    letters = text.ListStyle(name="Letters")
    letters.addElement(text.ListLevelStyleNumber(level="1", numformat="a", numsuffix=")"))
    letters.addElement(text.ListLevelStyleBullet(level="2", bulletchar="–"))
    document.automaticstyles.addElement(letters)
    document.text.addElement(text.H(outlinelevel=1, stylename=heading, text="Field diary"))
    line = text.P(text="A line with a note")
    note = text.Note(id="ftn1", noteclass="footnote")
    note.addElement(text.NoteCitation(text="1"))
    body = text.NoteBody()
    body.addElement(text.P(text="What the note says."))
    note.addElement(body)
    line.addElement(note)
    line.addText(" in it.")
    document.text.addElement(line)
    items = text.List(stylename=letters)
    for number, words in ((None, "first"), (None, "second"), (7, "seventh"), (None, "eighth")):
        item = text.ListItem(**({"startvalue": number} if number else {}))
        item.addElement(text.P(text=words))
        if words == "second":
            inner = text.List()
            inner_item = text.ListItem()
            inner_item.addElement(text.P(text="under it"))
            inner.addElement(inner_item)
            item.addElement(inner)
        items.addElement(item)
    document.text.addElement(items)
    grid = table.Table(name="Nets")
    grid.addElement(table.TableColumn(numbercolumnsrepeated=2))
    for row in (("Ride", "Nets"), ("North", "12")):
        tr = table.TableRow()
        for cell in row:
            tc = table.TableCell()
            tc.addElement(text.P(text=cell))
            tr.addElement(tc)
        grid.addElement(tr)
    document.text.addElement(grid)
    document.text.addElement(text.P(text="After the table."))
    document.save(folder / "odfpy.odt")


def openpyxl_workbook():
    workbook = openpyxl.Workbook()
    sheet = workbook.active
    sheet.title = "Spring"
    sheet.append(["Date", "Ride", "Birds", "Share", "Cost", "Took", "Open"])
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    sheet.append([datetime.date(2031, 4, 8), "North", 12, 0.4, 1234.5, datetime.timedelta(hours=27, minutes=30), True])
    sheet.append([datetime.datetime(2031, 4, 9, 18, 5), "007", -3, 0.125, -0.5, datetime.time(6, 5), False])
    sheet.append([None, "=not a formula'", 1e21, 1 / 3, 1e-7, 0.5, None])
    formats = {"A2": "d mmmm yyyy", "A3": "dd.mm.yyyy h:mm AM/PM", "D2": "0%", "D3": "0.0%", "D4": "# ??/??"}
    formats |= {"E2": '[$€-407] #,##0.00', "E3": '#,##0.00;[Red](#,##0.00)', "E4": "0.00E+00", "F2": "[h]:mm", "F3": "hh:mm"}
    for place, code in formats.items():
        sheet[place].number_format = code
    sheet["B4"].data_type = "s"
    sheet["B2"].hyperlink = "https://merrow-spit.example/north"
    sheet["B3"].fill = PatternFill("solid", fgColor="FFF3D6")
    sheet.merge_cells("A6:C7")
    sheet["A6"] = "three wide, two high"
    sheet.row_dimensions[3].hidden = True
    sheet.column_dimensions["F"].hidden = True
    sheet["G5"] = "two\nlines"
    other = workbook.create_sheet("Sums")
    other["A1"] = "=SUM(Spring!C2:C3)"
    workbook.save(folder / "openpyxl.xlsx")
    workbook.epoch = openpyxl.utils.datetime.CALENDAR_MAC_1904
    workbook.save(folder / "openpyxl-1904.xlsx")


def odfpy_sheet():
    document = OpenDocumentSpreadsheet()
    sheet = table.Table(name="Spring")
    for row in (("Ride", "Birds"), ("North", 12), ("Middle", 1.5)):
        tr = table.TableRow()
        for value in row:
            if isinstance(value, str):
                tc = table.TableCell(valuetype="string")
                tc.addElement(text.P(text=value))
            else:  # without the text that it is shown by
                tc = table.TableCell(valuetype="float", value=value)
            tr.addElement(tc)
        sheet.addElement(tr)
    document.spreadsheet.addElement(sheet)
    document.save(folder / "odfpy.ods")


for make in (python_docx, list_numbers, numbered_headings, odfpy, openpyxl_workbook, odfpy_sheet):
    make()
