"""The demo build as JSON, and one with a record of every kind, against docs/build.schema.json.

The judge is python3-jsonschema, a general-purpose validator of JSON Schema (draft 2020-12).
usage: schema_check.py DATRIN_CLI MAKE_DEMO SCHEMA CORPUS_JSON
"""

import copy
import json
import os
import subprocess
import sys
import tempfile

import jsonschema

cli, make_demo, schema_path, corpus = sys.argv[1:]
with open(schema_path, encoding="utf-8") as file:
    schema = json.load(file)
jsonschema.Draft202012Validator.check_schema(schema)
told = subprocess.run([cli, "schema"], check=True, capture_output=True, text=True).stdout
with open(schema_path, encoding="utf-8") as file:
    assert file.read() == told, f"{schema_path} is not what the descriptions say: datrin-cli schema > {schema_path}"
validator = jsonschema.Draft202012Validator(schema)

with tempfile.TemporaryDirectory() as folder:
    demo = os.path.join(folder, "demo.datrin")
    subprocess.run([make_demo, demo], check=True)
    text = subprocess.run([cli, "export", demo], check=True, capture_output=True, text=True).stdout
    build = json.loads(text)
    validator.validate(build)

#What the schema lets through the program reads, and writes the same again.
    out, back = os.path.join(folder, "a.json"), os.path.join(folder, "back.datrin")
    with open(out, "w", encoding="utf-8") as file:
        file.write(text)
    subprocess.run([cli, "import", out, back], check=True)
    again = subprocess.run([cli, "export", back], check=True, capture_output=True, text=True).stdout
    assert again == text, "export, import, export differ"

with open(corpus, encoding="utf-8") as file:
    every = json.load(file)
validator.validate(every)
subprocess.run([cli, "import", corpus, os.path.join(tempfile.mkdtemp(), "every.datrin")], check=True)

#And the schema refuses what it should : one field missing, kind by kind.
kinds = {record["kind"]: record for record in every["records"]}
assert set(kinds) == set(schema["$defs"]["record"]["properties"]["kind"]["enum"]), set(kinds)
for kind, record in kinds.items():
    for field in record["body"]:
        spoilt = copy.deepcopy(build)
        spoilt["records"] = [copy.deepcopy(record)]
        del spoilt["records"][0]["body"][field]
        assert not validator.is_valid(spoilt), f"{kind} without {field} passed"
print(len(build["records"]), "records of the demo;", len(kinds), "kinds")
