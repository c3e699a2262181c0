-- As join.sql, with the rows in whatever order the engine gives them.
COPY (
  SELECT v.*, g.grade FROM read_csv('{in}', delim = ';', quote = '"', escape = '"', header = true, auto_detect = false, columns = {
  'visit_no': 'VARCHAR', 'recorded_at': 'VARCHAR', 'received': 'VARCHAR', 'village': 'VARCHAR', 'item': 'VARCHAR',
  'fault': 'VARCHAR', 'weight_kg': 'VARCHAR', 'parts_cost': 'VARCHAR', 'outcome': 'VARCHAR', 'mender': 'VARCHAR',
  'phone': 'VARCHAR', 'tags': 'VARCHAR'}, nullstr = ['', 'N/A', 'n/a', 'none', '–', '-']) v
  LEFT JOIN read_csv('{list}', delim = ',', header = true, auto_detect = false,
    columns = {'visit_no': 'VARCHAR', 'grade': 'VARCHAR'}) g ON g.visit_no = v.visit_no
) TO '{out}.parquet' (FORMAT parquet, COMPRESSION zstd);
