"""Converts files by one LibreOffice that stays open. Usage: office-server.py FOLDER

It listens on FOLDER/socket: each connection sends one line of JSON, [to, infilter, out, [file...]] with `to` as
`soffice --convert-to` takes it, and gets one line back: "done", or what went wrong. It ends when nobody has asked for a while.
"""

import json
import os
import shutil
import socket
import subprocess
import sys
import time
from pathlib import Path

import uno
from com.sun.star.beans import PropertyValue
from com.sun.star.connection import NoConnectException

folder = Path(sys.argv[1])
IDLE = 45

# The filter for an ending, by what kind of document it is written from.
FILTERS = {
    "com.sun.star.sheet.SpreadsheetDocument": {
        "ods": "calc8",
        "xlsx": "Calc MS Excel 2007 XML",
        "fods": "OpenDocument Spreadsheet Flat XML",
        "pdf": "calc_pdf_Export",
    },
    "com.sun.star.presentation.PresentationDocument": {
        "odp": "impress8",
        "pdf": "impress_pdf_Export",
    },
    "com.sun.star.text.GenericTextDocument": {
        "odt": "writer8",
        "docx": "MS Word 2007 XML",
        "fodt": "OpenDocument Text Flat XML",
        "pdf": "writer_pdf_Export",
    },
}


def connect():
    pipe = f"drawer{time.time_ns()}"
    office = subprocess.Popen(
        [
            "soffice",
            f"-env:UserInstallation=file://{folder}/profile",
            "--headless",
            "--norestore",
            f"--accept=pipe,name={pipe};urp;",
        ],
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
    )
    local = uno.getComponentContext()
    resolver = local.ServiceManager.createInstanceWithContext("com.sun.star.bridge.UnoUrlResolver", local)
    for _ in range(600):
        try:
            context = resolver.resolve(f"uno:pipe,name={pipe};urp;StarOffice.ComponentContext")
            made = [
                context.ServiceManager.createInstanceWithContext(f"com.sun.star.frame.{name}", context)
                for name in ("Desktop", "DispatchHelper")
            ]
            return office, *made
        except NoConnectException:
            time.sleep(0.1)
    raise SystemExit("LibreOffice did not begin")


def properties(**values):
    return tuple(PropertyValue(Name=name, Value=value) for name, value in values.items())


def convert(desktop, decide, to, infilter, out, files):
    ending, _, rest = to.partition(":")
    name, _, options = rest.partition(":")
    reader, _, reading = infilter.partition(":")
    how = {"Hidden": True}
    # What is done with the changes that a document marks, by the name of Writer's own act.
    decided, reader = (reading, "") if reader == "changes" else ("", reader)
    reading = "" if decided else reading
    if reader:
        how["FilterName"] = "Text - txt - csv (StarCalc)" if reader == "CSV" else reader
    if reading:
        how["FilterOptions"] = reading
    for file in files:
        document = desktop.loadComponentFromURL(Path(file).as_uri(), "_blank", 0, properties(**how))
        if document is None:
            raise RuntimeError(f"{file} was not read")
        try:
            if decided:
                decide.executeDispatch(document.CurrentController.Frame, f".uno:{decided}", "", 0, ())
            kinds = [kind for kind in FILTERS if document.supportsService(kind)]
            chosen = name or FILTERS[kinds[0]][ending]
            target = Path(out, f"{Path(file).stem}.{ending}").as_uri()
            # What a writer is told: as a text, or, in JSON, by names.
            more = {"FilterOptions": options} if options else {}
            if options.startswith("{"):
                told = properties(**json.loads(options))
                more = {"FilterData": uno.Any("[]com.sun.star.beans.PropertyValue", told)}
            document.storeToURL(target, properties(FilterName=chosen, Overwrite=True, **more))
        finally:
            document.close(True)


office = None
try:
    office, desktop, decide = connect()
    listener = socket.socket(socket.AF_UNIX)
    listener.bind(str(folder / "starting"))
    listener.listen(8)
    listener.settimeout(IDLE)
    (folder / "starting").rename(folder / "socket")
    while True:
        try:
            asking, _ = listener.accept()
        except TimeoutError:
            break
        with asking, asking.makefile("rw") as lines:
            try:
                convert(desktop, decide, *json.loads(lines.readline()))
                answer = "done"
            except Exception as error:
                answer = " ".join(str(error).split()) or type(error).__name__
            lines.write(answer + "\n")
finally:
    (folder / "socket").unlink(missing_ok=True)
    if office:
        office.terminate()
        office.wait()
    # Under another name first: as soon as the folder is gone, the next one may begin in it.
    ended = folder.with_name(f"{folder.name}-ended-{os.getpid()}")
    folder.rename(ended)
    shutil.rmtree(ended, ignore_errors=True)
