package fixshelf.source;

import fixshelf.engine.DuckSession;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// The rows of a Parquet file, with every value as text.
final class ParquetRecords implements Records {
    private static final int PAGE = 20_000;

    private final DuckSession session;
    private final List<String> names;
    private final Path file;
    private List<List<@Nullable Object>> page = List.of();
    private int at;
    private int line;

    ParquetRecords(Path file) {
        this.file = file;
        this.session = DuckSession.open(List.of(file), Optional.empty());
        try {
            this.names =
                    session
                            .query("SELECT * FROM read_parquet(" + DuckSession.text(file.toString()) + ") LIMIT 0")
                            .columns()
                            .stream()
                            .map(c -> c.name())
                            .toList();
        } catch (ProblemException e) {
            session.close();
            throw new ProblemException(Problem.about(
                    Code.FILE_BROKEN,
                    file.toString(),
                    file.getFileName() + " is no whole Parquet file: it begins like one and cannot be read.",
                    "Ask for it again, or write it again: it may be cut off."));
        }
    }

    /// The relation that reads a file, whose values are texts.
    static String relation(Path file, List<String> names) {
        return "(SELECT "
                + names.stream()
                        .map(n -> "CAST(" + DuckSession.name(n) + " AS VARCHAR) AS " + DuckSession.name(n))
                        .collect(Collectors.joining(", "))
                + " FROM read_parquet(" + DuckSession.text(file.toString()) + "))";
    }

    @Override
    public List<String> names() {
        return names;
    }

    @Override
    public Optional<Row> next() {
        if (at == page.size()) {
            if (line > 0 && page.size() < PAGE) {
                return Optional.empty();
            }
            page = session.query("SELECT * FROM " + relation(file, names) + " LIMIT " + PAGE + " OFFSET " + line)
                    .rows();
            at = 0;
            if (page.isEmpty()) {
                return Optional.empty();
            }
        }
        List<@Nullable String> cells = new ArrayList<>();
        page.get(at++).forEach(v -> cells.add(v == null ? null : v.toString()));
        return Optional.of(new Row(++line, cells));
    }

    @Override
    public void close() {
        session.close();
    }
}
