"""The benchmark's work in pandas. Writes delimited text, because Debian's pandas has no Parquet writer."""
import sys

import pandas as pd

df = pd.read_csv(sys.argv[1], sep=";", dtype="string", na_values=["", "N/A", "n/a", "none", "–", "-"], keep_default_na=False)
for column in ["village", "item", "mender"]:
    df[column] = df[column].str.replace(" +", " ", regex=True).str.strip(" ")
other = df["received"].str.match(r"^\d{2}/\d{2}/\d{4}$").fillna(False)
r = df["received"]
df["received"] = r.mask(other, r.str[6:10] + "-" + r.str[3:5] + "-" + r.str[0:2])
df["parts_cost"] = pd.to_numeric(df["parts_cost"].str.lstrip("£").str.replace(",", "", regex=False), errors="coerce")
df = df.sort_values("recorded_at", kind="stable").drop_duplicates("visit_no", keep="last").sort_index()
df.to_csv(sys.argv[2] + ".csv", index=False)
