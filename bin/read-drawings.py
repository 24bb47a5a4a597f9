#!/usr/bin/env python3
"""Reads every drawing of the demo studio with a program that knows the format: no error, and nothing that it had to put right.

    bin/read-drawings.py http://127.0.0.1:7373

Called by bin/test --deep, in a virtual environment that has ezdxf.
"""

import io
import json
import sys
import urllib.error
import urllib.request

import ezdxf
from ezdxf.audit import Auditor

LEAST = 5


def fetched(address: str) -> bytes | None:
    try:
        with urllib.request.urlopen(address, timeout=60) as answer:
            return answer.read()
    except urllib.error.HTTPError as refused:
        # A shipment whose box is not cut has no drawing.
        if refused.code == 404:
            return None
        raise


def main() -> None:
    base = sys.argv[1].rstrip("/") + "/api/v1"
    listed = json.loads(fetched(f"{base}/shipments") or b"{}")
    drawn = 0
    for shipment in listed["rows"]:
        file = fetched(f"{base}/shipments/{shipment['id']}/drawings/dxf")
        if file is None:
            continue
        drawing = ezdxf.read(io.StringIO(file.decode("ascii")))
        audit: Auditor = drawing.audit()
        found = [entry.message for entry in audit.errors + audit.fixes]
        if drawing.dxfversion != "AC1009" or found:
            sys.exit(f"{shipment['inputs']['title']}: {drawing.dxfversion}, {found}")
        drawn += 1
    if drawn < LEAST:
        sys.exit(f"only {drawn} drawings were there to be read")
    print(f"{drawn} drawings were read, without an error and without a fix.")


if __name__ == "__main__":
    main()
