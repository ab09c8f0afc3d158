"""Makes documents of random structure as python-docx, odfpy and pandoc write them. Usage: many.py FOLDER COUNT SEED

Of each number there is NUMBER-docx.docx, NUMBER-odf.odt, NUMBER-md.docx and NUMBER-md.odt. No two lines of one say the same.
"""

import random
import subprocess
import sys
from pathlib import Path

import docx
from docx.enum.section import WD_SECTION
from docx.enum.text import WD_BREAK
from odf import style, table, text
from odf.opendocument import OpenDocumentText

folder = Path(sys.argv[1])
KINDS = ["words", "words", "words", "heading", "bullets", "numbers", "nested", "table", "quote", "break", "note"]
NAMES = ["wheatear", "tern", "knot", "dunlin", "curlew", "firecrest", "siskin", "wryneck"]


class Plan:
    """What a document says: kinds of parts, and lines that are each said once."""

    def __init__(self, seed):
        self.random = random.Random(seed)
        self.count = 0
        self.kinds = [self.random.choice(KINDS) for _ in range(self.random.randint(6, 40))]

    def line(self, most=12):
        self.count += 1
        words = " ".join(self.random.choice(NAMES) for _ in range(self.random.randint(1, most)))
        return f"Line {self.count} {words}"

    def lines(self):
        return [self.line() for _ in range(self.random.randint(1, 5))]

    def grid(self):
        width = self.random.randint(2, 4)
        return [[self.line(2) for _ in range(width)] for _ in range(self.random.randint(2, 5))]


def python_docx(path, plan):
    document = docx.Document()
    document.add_paragraph(plan.line())
    for kind in plan.kinds:
        if kind == "words":
            paragraph = document.add_paragraph(plan.line())
            paragraph.add_run(" and ").bold = True
            paragraph.add_run(plan.line())
        elif kind == "heading":
            document.add_heading(plan.line(4), plan.random.randint(1, 3))
        elif kind in ("bullets", "numbers", "nested"):
            base = "List Number" if kind == "numbers" else "List Bullet"
            for index, line in enumerate(plan.lines()):
                document.add_paragraph(line, style=f"{base} 2" if kind == "nested" and index % 2 else base)
        elif kind == "table":
            rows = plan.grid()
            grid = document.add_table(len(rows), len(rows[0]), style="Table Grid")
            for row, cells in enumerate(rows):
                for column, said in enumerate(cells):
                    grid.cell(row, column).text = said
        elif kind == "quote":
            document.add_paragraph(plan.line(), style="Intense Quote")
        elif kind == "break":
            document.add_paragraph(plan.line()).add_run().add_break(WD_BREAK.PAGE)
        else:
            document.add_section(WD_SECTION.CONTINUOUS)
            document.add_paragraph(plan.line())
    document.save(path)


def odfpy(path, plan):
    document = OpenDocumentText()
    bold = style.Style(name="Strong", family="text")
    bold.addElement(style.TextProperties(fontweight="bold"))
    document.automaticstyles.addElement(bold)
    broken = style.Style(name="Broken", family="paragraph")
    broken.addElement(style.ParagraphProperties(breakbefore="page"))
    document.automaticstyles.addElement(broken)
    numbered = text.ListStyle(name="Numbered")
    for level in (1, 2):
        numbered.addElement(text.ListLevelStyleNumber(level=level, numformat="1", numsuffix="."))
    document.automaticstyles.addElement(numbered)
    body = document.text
    body.addElement(text.P(text=plan.line()))
    for kind in plan.kinds:
        if kind == "words":
            paragraph = text.P(text=plan.line())
            paragraph.addElement(text.Span(stylename=bold, text=" and "))
            paragraph.addText(plan.line())
            body.addElement(paragraph)
        elif kind == "heading":
            body.addElement(text.H(outlinelevel=plan.random.randint(1, 3), text=plan.line(4)))
        elif kind in ("bullets", "numbers", "nested"):
            items = text.List(stylename=numbered) if kind == "numbers" else text.List()
            for index, line in enumerate(plan.lines()):
                item = text.ListItem()
                item.addElement(text.P(text=line))
                if kind == "nested" and index % 2:
                    inner, below = text.List(), text.ListItem()
                    below.addElement(text.P(text=plan.line()))
                    inner.addElement(below)
                    item.addElement(inner)
                items.addElement(item)
            body.addElement(items)
        elif kind == "table":
            rows = plan.grid()
            grid = table.Table(name=f"Grid{plan.count}")
            grid.addElement(table.TableColumn(numbercolumnsrepeated=len(rows[0])))
            for cells in rows:
                row = table.TableRow()
                for said in cells:
                    cell = table.TableCell(valuetype="string")
                    cell.addElement(text.P(text=said))
                    row.addElement(cell)
                grid.addElement(row)
            body.addElement(grid)
        elif kind == "break":
            body.addElement(text.P(stylename=broken, text=plan.line()))
        elif kind == "note":
            section = text.Section(name=f"Section{plan.count}")
            section.addElement(text.P(text=plan.line()))
            body.addElement(section)
        else:
            body.addElement(text.P(text=plan.line()))
    document.save(path)


def markdown(plan):
    parts = [plan.line()]
    for kind in plan.kinds:
        if kind == "words":
            parts.append(f"{plan.line()} **and** {plan.line()}")
        elif kind == "heading":
            parts.append("#" * plan.random.randint(1, 3) + " " + plan.line(4))
        elif kind in ("bullets", "nested"):
            lines = enumerate(plan.lines())
            parts.append("\n".join(("    " if kind == "nested" and at % 2 else "") + "- " + line for at, line in lines))
        elif kind == "numbers":
            parts.append("\n".join(f"{at}. {line}" for at, line in enumerate(plan.lines(), 1)))
        elif kind == "table":
            rows = plan.grid()
            lines = ["| " + " | ".join(row) + " |" for row in rows]
            lines.insert(1, "|" + "---|" * len(rows[0]))
            parts.append("\n".join(lines))
        elif kind == "quote":
            parts.append(f"> {plan.line()}\n>\n> {plan.line()}")
        elif kind == "break":
            parts.append("```\n" + plan.line() + "\n```")
        else:
            parts.append(f"{plan.line()}[^{plan.count}]\n\n[^{plan.count}]: {plan.line()}")
    return "\n\n".join(parts)


for number in range(int(sys.argv[2])):
    seed = int(sys.argv[3]) + number
    python_docx(folder / f"{number}-docx.docx", Plan(seed))
    odfpy(folder / f"{number}-odf.odt", Plan(seed))
    for ending in ("docx", "odt"):
        words = ["pandoc", "-f", "markdown", "-o", str(folder / f"{number}-md.{ending}")]
        subprocess.run(words, input=markdown(Plan(seed)).encode(), check=True)
