"""Makes mails as Python's own library writes them. Usage: mails.py FOLDER

Beside each NAME.eml stands NAME.json: what it says, as the library reads it again.
"""

import json
import mailbox
import sys
from email import policy
from email.message import EmailMessage
from email.parser import BytesParser
from pathlib import Path

folder = Path(sys.argv[1])
BAR = Path("demo/sketches/tide.png").read_bytes()


def mail(name, subject, sender, build):
    message = EmailMessage()
    message["From"] = sender
    message["To"] = "Bo <bo@merrow-spit.example>, Cy Öl <cy@merrow-spit.example>"
    message["Date"] = "Tue, 08 Apr 2031 09:12:00 +0100"
    message["Subject"] = subject
    build(message)
    (folder / f"{name}.eml").write_bytes(message.as_bytes(policy=policy.SMTP))
    again = BytesParser(policy=policy.default).parsebytes(message.as_bytes())
    plain = again.get_body(preferencelist=("plain",))
    said = {
        "from": str(again["From"]),
        "to": str(again["To"]),
        "date": str(again["Date"]),
        "subject": str(again["Subject"]),
        "text": plain.get_content() if plain else None,
        "attachments": [part.get_filename() or "a mail" for part in again.iter_attachments()],
    }
    (folder / f"{name}.json").write_text(json.dumps(said))


def html(text):
    return f"<html><body><p>{text}</p><ul><li>one</li><li>two</li></ul></body></html>"


def related(message):
    message.set_content("The bar at low water\n")
    message.add_alternative('<p>The bar <b>at low water</b></p><p><img src="cid:bar@spit" alt="The bar"></p>', subtype="html")
    message.get_payload()[1].add_related(BAR, "image", "png", cid="<bar@spit>")


def attached(message):
    message.set_content("See the costs.\n")
    message.add_attachment("a,b\n1,2\n", subtype="csv", filename="costs – spring.csv")
    message.add_attachment(BAR, "image", "png", filename="tide.png")


def forwarded(message):
    inner = EmailMessage()
    inner["Subject"] = "inner"
    inner["From"] = "x@merrow-spit.example"
    inner.set_content("Not of the outer one\n")
    message.set_content("I pass this on.\n")
    message.add_attachment(inner)


LONG = "A long line of the warden about the seawall and the boards " * 12
mail("plain", "Boards", "Ada <ada@merrow-spit.example>", lambda m: m.set_content("Dear Bo,\n\nthe hut is shut.\n\n> When?\n>> On Monday.\n> Good.\n"))
mail("latin", "Café – geschlossen", "Ädä <ada@merrow-spit.example>", lambda m: m.set_content("Größe: 5 €\n", charset="iso-8859-15"))
mail("quoted", "Long", "ada@merrow-spit.example", lambda m: m.set_content(LONG + "\n", cte="quoted-printable"))
mail("base64", "שלום", "ada@merrow-spit.example", lambda m: m.set_content("שלום עולם\n", cte="base64"))
mail("japanese", "鳥の名前", "ada@merrow-spit.example", lambda m: m.set_content("鳥の名前\n", charset="iso-2022-jp"))
mail("html", "Only HTML", "ada@merrow-spit.example", lambda m: m.set_content(html("Only in <i>HTML</i>"), subtype="html"))
mail("related", "With a picture", "ada@merrow-spit.example", related)
mail("attached", "With files", "ada@merrow-spit.example", attached)
mail("forwarded", "With a mail", "ada@merrow-spit.example", forwarded)
mail("long", "A subject " + "that goes on " * 20, "ada@merrow-spit.example", lambda m: m.set_content("x\n"))


# Scripts and character sets, how they are written, and what the mail is made of, crossed: 48 mails.
TEXTS = [
    ("Nets are mended = done", ["utf-8", "us-ascii"]),
    ("Größe fünf Öre", ["utf-8", "iso-8859-1"]),
    ("Чайка на берегу", ["utf-8", "koi8-r", "windows-1251"]),
    ("שלום עולם", ["utf-8", "iso-8859-8"]),
    ("مرحبا بالطيور", ["utf-8", "windows-1256"]),
    ("鳥の名前", ["utf-8", "shift_jis", "euc-jp"]),
    ("潮汐表", ["utf-8", "gb2312"]),
]


def crossed(text, charset, cte, structure):
    def build(message):
        page = f"<p dir=auto>{text}</p>"
        if structure == 1:
            message.set_content(page, subtype="html", charset=charset, cte=cte)
            return
        message.set_content(text + "\n", charset=charset, cte=cte)
        if structure >= 2:
            message.add_alternative(page, subtype="html", charset=charset, cte=cte)
        if structure == 3:
            message.add_attachment(BAR, "image", "png", filename=f"{text}.png")

    return build


number = 0
for text, charsets in TEXTS:
    for charset in charsets:
        for cte in ("quoted-printable", "base64", "8bit"):
            mail(f"crossed-{number:02}", text, f"{text} <ada@merrow-spit.example>", crossed(text, charset, cte, number % 4))
            number += 1


def sheet(message):
    inner = EmailMessage()
    inner["Subject"] = "The figures"
    inner["From"] = "x@merrow-spit.example"
    inner.set_content("See the sheet.\n")
    inner.add_attachment(
        Path("demo/ringing.xlsx").read_bytes(),
        "application",
        "vnd.openxmlformats-officedocument.spreadsheetml.sheet",
        filename="ringing.xlsx",
    )
    message.set_content("I pass this on.\n")
    message.add_attachment(inner)
    message.add_attachment(Path("demo/diary.pdf").read_bytes(), "application", "pdf", filename="diary.pdf")
    message.add_attachment(b"\0\1", "application", "octet-stream", filename="tide.bin")


mail("sheet", "With a mail that has a sheet", "ada@merrow-spit.example", sheet)

# A file of mails, one of which says a line that begins as a mail does.
(folder / "spring.mbox").unlink(missing_ok=True)
box = mailbox.mbox(folder / "spring.mbox")
for number in range(1, 41):
    message = EmailMessage()
    message["From"] = "ada@merrow-spit.example"
    message["Subject"] = f"Round {number}"
    message["Date"] = "Tue, 08 Apr 2031 09:12:00 +0100"
    message.set_content(f"Round {number} began at six.\nFrom the hut 2031 one sees the bar.\n")
    box.add(message)
box.close()
