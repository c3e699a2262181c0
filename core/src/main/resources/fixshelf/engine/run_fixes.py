"""Runs fixes on made-up columns: reads tasks from one JSON file, writes answers to another."""
import json
import sys
import warnings
from decimal import Decimal

import pandas as pd

warnings.simplefilter("ignore")


def read(value):
    return Decimal(value["decimal"]) if isinstance(value, dict) else value


def write(value):
    if value is None or value is pd.NA or value is pd.NaT or (isinstance(value, float) and value != value):
        return None
    if isinstance(value, Decimal):
        return {"decimal": str(value)}
    if isinstance(value, str):
        return value
    if pd.api.types.is_bool(value):
        return bool(value)
    return int(value)


def run(task):
    names = {}
    exec(task["code"], names)
    columns = {}
    fixed = {}
    for parameter in task["parameters"]:
        values = [read(v) for v in parameter["values"]]
        if parameter["fixed"]:
            fixed[parameter["name"]] = values[0]
        columns[parameter["name"]] = pd.Series(values, dtype=parameter["type"])
    if "function" in task:
        arguments = [fixed.get(n, c) if n in fixed else c for n, c in columns.items()]
        result = names[task["function"]](*arguments)
    else:
        names["df"] = pd.DataFrame({f"p{i}": c for i, c in enumerate(columns.values())})
        result = eval(task["expression"], names)
    return [write(v) for v in result]


answers = []
with open(sys.argv[1], encoding="utf-8") as file:
    for task in json.load(file):
        try:
            answers.append({"values": run(task)})
        except Exception as problem:
            answers.append({"error": f"{type(problem).__name__}: {problem}"})
with open(sys.argv[2], "w", encoding="utf-8") as file:
    json.dump(answers, file)
