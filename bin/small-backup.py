#!/usr/bin/env python3
"""Makes the small backup that tests read in: one for each edition of the tables, in crates/server/testdata/backups.

    bin/start --empty --data "$(mktemp -d)" --port 7441 --today 2027-03-04
    bin/small-backup.py http://127.0.0.1:7441 crates/server/testdata/backups/tables-20.zip

Three shipments: one weighed and measured, one renamed, one handed over.
"""

import json
import sys
import time
import urllib.request

address, file = sys.argv[1:]
SHIPMENTS = "/api/v1/shipments"
BACKUP = "/api/v1/studio/backup"


def ask(method, path, body=None):
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address + path, data, {"content-type": "application/json"}, method=method)
    with urllib.request.urlopen(request) as answer:
        said = answer.read()
        return json.loads(said) if "json" in answer.headers["content-type"] else said


def made(title, width, height, **more):
    piece = {"width": width, "height": height, "depth": "20 mm", "construction": "stretched_canvas", "medium": "acrylic"}
    buyer = {"name": "Ivo Tern", "street": "Quay 3", "town": "Ternby", "postcode": "1000", "country": "XS"}
    inputs = {"title": title, "piece": {**piece, "finished": "2026-08-20"}, "value": "400.00", "buyer": buyer, **more}
    return ask("POST", SHIPMENTS, {"inputs": inputs, "unit": "mm"})


def changed(shipment, change):
    return ask("PATCH", f"{SHIPMENTS}/{shipment['id']}", {"version": shipment["version"], "change": change})


heron = made("Heron 15", "600 mm", "800 mm")
changed(heron, {"parcel": {"weight": "5.4 kg", "across": "700 mm"}})
kelp = made("Kelp", "400 mm", "300 mm")
changed(kelp, {"title": "Kelp Ladder"})
van = {"from": "Fulmar & Daughters", "what": "van", "price": "48.00"}
tide = made("Slack Tide", "600 mm", "800 mm", quotations={"packer": van})
tide = changed(tide, {"service": "quoted/packer"})
changed(tide, {"sending": {"handed_over": "2027-03-04"}})
ask("POST", BACKUP)
while ask("GET", BACKUP)["doing"]:
    time.sleep(0.1)
with open(file, "wb") as out:
    out.write(ask("GET", f"{BACKUP}/file"))
