"""Runs fixes on made-up columns: tasks come from a JSON file, one line of answers a task goes to another."""
import json
import sys
import warnings
from datetime import date, datetime
from decimal import Decimal

import pandas as pd

warnings.simplefilter("ignore")


def read(value):
    if isinstance(value, dict):
        if "time" in value:
            return datetime.fromisoformat(value["time"])
        if "number" in value:
            return float(value["number"])
        return Decimal(value["decimal"]) if "decimal" in value else date.fromisoformat(value["date"])
    return value


def write(value):
    if value is None or value is pd.NA or value is pd.NaT or (isinstance(value, float) and value != value):
        return None
    if isinstance(value, datetime):
        return {"time": value.isoformat(" ")}
    if isinstance(value, date):
        return {"date": value.isoformat()}
    if isinstance(value, Decimal):
        return {"decimal": str(value)}
    if isinstance(value, str):
        return value
    if pd.api.types.is_bool(value):
        return bool(value)
    if isinstance(value, float):
        return {"number": repr(float(value)).replace("inf", "Infinity")}
    return int(value)


def call(task, names, columns, rows):
    # By way of a list, as some versions of pandas make other times of those in a column of objects.
    parts = {n: pd.Series(list(c.iloc[rows]), dtype=c.dtype) for n, c in columns.items()}
    if "function" in task:
        fixed = {p["name"]: read(p["values"][0]) for p in task["parameters"] if p["fixed"]}
        result = names[task["function"]](*[fixed.get(n, c) if n in fixed else c for n, c in parts.items()])
    else:
        names["df"] = pd.DataFrame({f"p{i}": c for i, c in enumerate(parts.values())})
        result = eval(task["expression"], names)
    return [write(v) for v in result]


def run_job(task):
    names = {}
    try:
        exec(task["code"], names)
        frames = [pd.DataFrame(s["rows"], columns=s["columns"], dtype="string") for s in task["sources"]]
        result = names[task["job"]](*frames)
        if list(result.columns) != task["names"]:
            return {"error": f"the columns that come out are {list(result.columns)}, not {task['names']}"}
        return [[write(v) for v in row] for row in result.itertuples(index=False, name=None)]
    except Exception as problem:
        return {"error": f"{type(problem).__name__}: {problem}"}


def run(task):
    names = {}
    try:
        exec(task["code"], names)
    except Exception as problem:
        return [{"error": f"{type(problem).__name__}: {problem}"} for _ in task["parameters"][0]["values"]]
    columns = {
        p["name"]: pd.Series([read(v) for v in p["values"]], dtype=p["type"].strip('"')) for p in task["parameters"]
    }
    return some(task, names, columns, list(range(len(task["parameters"][0]["values"]))))


def some(task, names, columns, rows):
    """The answers for these rows; where they fail together, in halves, down to the row."""
    try:
        return call(task, names, columns, rows)
    except Exception as problem:
        if len(rows) == 1:
            return [{"error": f"{type(problem).__name__}: {problem}"}]
        middle = len(rows) // 2
        return some(task, names, columns, rows[:middle]) + some(task, names, columns, rows[middle:])


with open(sys.argv[1], encoding="utf-8") as tasks, open(sys.argv[2], "w", encoding="utf-8") as answers:
    for task in json.load(tasks):
        json.dump(run_job(task) if "job" in task else run(task), answers)
        answers.write("\n")
        answers.flush()
