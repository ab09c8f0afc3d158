"""Prints how many rows LibreOffice keeps in sight in each workbook. Usage: frozen.py FOLDER FILE..."""

import subprocess
import sys
import time
from pathlib import Path

import uno
from com.sun.star.beans import PropertyValue
from com.sun.star.connection import NoConnectException

folder, *names = sys.argv[1:]
pipe = f"drawer{time.time_ns()}"
office = subprocess.Popen(
    ["soffice", f"-env:UserInstallation=file://{folder}/bridge", "--headless", "--norestore", f"--accept=pipe,name={pipe};urp;"]
)
try:
    local = uno.getComponentContext()
    resolver = local.ServiceManager.createInstanceWithContext("com.sun.star.bridge.UnoUrlResolver", local)
    for _ in range(120):
        try:
            context = resolver.resolve(f"uno:pipe,name={pipe};urp;StarOffice.ComponentContext")
            break
        except NoConnectException:
            time.sleep(0.5)
    desktop = context.ServiceManager.createInstanceWithContext("com.sun.star.frame.Desktop", context)
    for name in names:
        document = desktop.loadComponentFromURL(Path(folder, name).as_uri(), "_blank", 0, ())
        controller = document.CurrentController
        print(name, controller.getSplitRow() if controller.hasFrozenPanes() else 0, flush=True)
        document.close(True)
    desktop.terminate()
finally:
    office.terminate()
