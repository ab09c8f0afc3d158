"""Makes a master sheet as openpyxl writes it: a title, totals, a formula a row, formats by conditions, checks, a chart. Usage: year.py FILE"""

import datetime
import sys

from openpyxl import Workbook
from openpyxl.chart import BarChart, Reference
from openpyxl.formatting.rule import CellIsRule
from openpyxl.styles import Font, PatternFill
from openpyxl.worksheet.datavalidation import DataValidation
from openpyxl.worksheet.table import Table

book = Workbook()
spring = book.active
spring.title = "Spring"
spring["A1"] = "Ringing, Merrow Spit"
for column, name in enumerate(["Date", "Species", "New", "Retrap", "All"], 1):
    spring.cell(3, column, name).font = Font(bold=True)
for row, (day, species, new, retrap) in enumerate([(8, "Chiffchaff", 14, 3), (8, "Goldcrest", 2, 11), (9, "Wren", 1, 4)], 4):
    spring.cell(row, 1, datetime.date(2031, 4, day)).number_format = "dd/mm/yyyy"
    for column, value in enumerate([species, new, retrap, f"=C{row}+D{row}"], 2):
        spring.cell(row, column, value)
spring["B7"] = "Total"
for letter in "CDE":
    spring[f"{letter}7"] = f"=SUM({letter}4:{letter}6)"
spring["A9"] = "Checked by the warden"
spring.merge_cells("A9:C9")
spring.conditional_formatting.add("C4:C6", CellIsRule(operator="greaterThan", formula=["10"], fill=PatternFill("solid", bgColor="FFEF9F")))
check = DataValidation(type="whole", operator="between", formula1="0", formula2="500")
check.add("C4:D6")
spring.add_data_validation(check)
chart = BarChart()
chart.add_data(Reference(spring, min_col=3, min_row=3, max_row=6), titles_from_data=True)
spring.add_chart(chart, "G12")
costs = book.create_sheet("Costs")
for row in [["Item", "Quantity", "Each", "Amount"], ["Plank", 18, 11.2, "=B2*C2"], ["Rope", 2, 7.5, "=B3*C3"]]:
    costs.append(row)
costs.add_table(Table(displayName="CostTable", ref="A1:D3"))
summary = book.create_sheet("Sum")
summary["A1"] = "=SUM(Spring!C4:C6)"
summary["A2"] = "=Spring!E7"
summary["A3"] = "=SUM(Costs!D2:D3)"
book.save(sys.argv[1])
