"""Makes workbooks of random structure as openpyxl writes them. Usage: many-sheets.py FOLDER COUNT SEED

Each is NUMBER.xlsx with NUMBER.json beside it, which says what is in it: where its header is, and whether it has totals.
"""

import json
import random
import sys
from pathlib import Path

import openpyxl
from openpyxl.formatting.rule import CellIsRule
from openpyxl.styles import Font, PatternFill
from openpyxl.utils import get_column_letter
from openpyxl.workbook.defined_name import DefinedName
from openpyxl.worksheet.datavalidation import DataValidation
from openpyxl.worksheet.table import Table

folder = Path(sys.argv[1])
BIRDS = ["wheatear", "tern", "knot", "dunlin", "curlew", "firecrest", "siskin", "wryneck"]
COLUMNS = ["Species", "Ride", "New", "Wing", "Remarks", "Both"]


def workbook(number, chance):
    book = openpyxl.Workbook()
    sheet = book.active
    sheet.title = "Spring"
    has = {name: chance.random() < 0.5 for name in ("title", "total", "table", "both", "filter", "rule", "check", "name")}
    names = [name for name in COLUMNS if name != "Both" or has["both"]]
    inner = names[:-1] if has["both"] else names[:]
    chance.shuffle(inner)
    names = inner + names[len(inner) :]
    head = 1
    if has["title"]:
        sheet["A1"] = "Ringing in spring"
        sheet.merge_cells(start_row=1, start_column=1, end_row=1, end_column=len(names))
        head = 3
    letter = {name: get_column_letter(names.index(name) + 1) for name in names}
    for at, name in enumerate(names, 1):
        sheet.cell(head, at, name).font = Font(bold=True)
    count = chance.randint(2, 30)
    for row in range(head + 1, head + 1 + count):
        said = {
            "Species": chance.choice(BIRDS),
            "Ride": chance.choice(["north", "heath"]),
            "New": chance.randint(0, 40),
            "Wing": chance.randint(500, 900) / 10,
            "Remarks": None if chance.random() < 0.6 else f"seen in row {row}",
            "Both": f"={letter['New']}{row}+{letter['Wing']}{row}",
        }
        for at, name in enumerate(names, 1):
            sheet.cell(row, at, said[name])
        sheet[f"{letter['Wing']}{row}"].number_format = "0.0"
    last = head + count
    new = letter["New"]
    if has["total"] and not has["table"]:
        sheet[f"A{last + 1}"] = "Total"
        where = new if new != "A" else letter["Wing"]
        sheet[f"{where}{last + 1}"] = f"=SUM({where}{head + 1}:{where}{last})"
    area = f"A{head}:{get_column_letter(len(names))}{last}"
    if has["table"]:
        sheet.add_table(Table(displayName="Ringing", ref=area))
    elif has["filter"]:
        sheet.auto_filter.ref = area
    column = f"{new}{head + 1}:{new}{last}"
    if has["rule"]:
        fill = PatternFill("solid", bgColor="FFEE99")
        sheet.conditional_formatting.add(column, CellIsRule(operator="greaterThan", formula=["20"], fill=fill))
    if has["check"]:
        check = DataValidation(type="whole", operator="between", formula1="0", formula2="99")
        check.add(column)
        sheet.add_data_validation(check)
    if has["name"]:
        book.defined_names.append(DefinedName("Counts", attr_text=f"Spring!${new}${head + 1}:${new}${last}"))
    sheet.freeze_panes = f"A{head + 1}"
    other = book.create_sheet("Sums")
    other["A1"] = "all new"
    other["B1"] = "=SUM(Counts)" if has["name"] else f"=SUM(Spring!{column.replace(':', ':')})"
    book.save(folder / f"{number}.xlsx")
    total = has["total"] and not has["table"]
    facts = {"names": names, "head": head, "last": last, "total": total, "both": has["both"]}
    (folder / f"{number}.json").write_text(json.dumps(facts))


for number in range(int(sys.argv[2])):
    workbook(number, random.Random(int(sys.argv[3]) + number))
