-- Rows stay in their order, as all of them do here: the engine hands them on in another one after a join.
COPY (
  SELECT v.* EXCLUDE place, g.grade FROM (SELECT *, row_number() OVER () AS place FROM read_csv('{in}', delim = ';', quote = '"', escape = '"', header = true, auto_detect = false, columns = {
  'visit_no': 'VARCHAR', 'recorded_at': 'VARCHAR', 'received': 'VARCHAR', 'village': 'VARCHAR', 'item': 'VARCHAR',
  'fault': 'VARCHAR', 'weight_kg': 'VARCHAR', 'parts_cost': 'VARCHAR', 'outcome': 'VARCHAR', 'mender': 'VARCHAR',
  'phone': 'VARCHAR', 'tags': 'VARCHAR'}, nullstr = ['', 'N/A', 'n/a', 'none', '–', '-'])) v
  LEFT JOIN read_csv('{list}', delim = ',', header = true, auto_detect = false,
    columns = {'visit_no': 'VARCHAR', 'grade': 'VARCHAR'}) g ON g.visit_no = v.visit_no
  ORDER BY place
) TO '{out}.parquet' (FORMAT parquet, COMPRESSION zstd);
