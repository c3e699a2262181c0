COPY (
  SELECT village, count(*) AS visits, sum(TRY_CAST(weight_kg AS DECIMAL(9, 3))) AS weight FROM read_csv('{in}', delim = ';', quote = '"', escape = '"', header = true, auto_detect = false, columns = {
  'visit_no': 'VARCHAR', 'recorded_at': 'VARCHAR', 'received': 'VARCHAR', 'village': 'VARCHAR', 'item': 'VARCHAR',
  'fault': 'VARCHAR', 'weight_kg': 'VARCHAR', 'parts_cost': 'VARCHAR', 'outcome': 'VARCHAR', 'mender': 'VARCHAR',
  'phone': 'VARCHAR', 'tags': 'VARCHAR'}, nullstr = ['', 'N/A', 'n/a', 'none', '–', '-'])
  GROUP BY village
) TO '{out}.parquet' (FORMAT parquet, COMPRESSION zstd);
