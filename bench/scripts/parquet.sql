COPY (
  SELECT *, weight_kg * 2 AS heavier FROM read_parquet('{in}') WHERE weight_kg > 1.5
) TO '{out}.parquet' (FORMAT parquet, COMPRESSION zstd);
