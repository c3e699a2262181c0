package fixshelf.output;

import fixshelf.engine.DuckSession;
import fixshelf.fetch.ServerAddress;
import fixshelf.language.tree.Names;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.table.Field;
import fixshelf.type.Literals;
import fixshelf.type.Visible;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;

/// A table that is being written. Nobody sees its rows before [#commit]; what was not committed is gone when it is
/// closed.
///
/// Where tables are made inside a transaction, all is one. In MariaDB, where they are not, rows go into a table of
/// another name, and one statement gives it its own.
public final class DatabaseTable implements AutoCloseable {
    private static final int AT_ONCE = 1_000;
    private static final int SHOWN = 3;
    private static final String NEW = "__fixshelf_new";
    private static final String OLD = "__fixshelf_old";

    private final TableTarget target;
    private final ColumnTypes types;
    private final Connection connection;
    private final String shown;
    private boolean inNewTable;

    private DatabaseTable(TableTarget target, Connection connection, String shown) {
        this.target = target;
        this.types = new ColumnTypes(target.engine());
        this.connection = connection;
        this.shown = shown;
    }

    /// Opens the database, and looks whether the table may be written. Nothing is changed yet.
    ///
    /// @param file the database, where it is one
    /// @param name the name of that file, for messages
    public static DatabaseTable open(TableTarget target, Path file, String name) {
        String shown = "table " + target.table()
                + target.server().map(s -> " of " + s.shown()).orElse(" of " + name);
        try {
            Connection connection =
                    switch (target.engine()) {
                        case "sqlite", "duckdb" ->
                            java.sql.DriverManager.getConnection("jdbc:" + target.engine() + ":" + file);
                        default -> target.server().orElseThrow().connectToWrite(target.user(), target.passwordFrom());
                    };
            DatabaseTable table = new DatabaseTable(target, connection, shown);
            try {
                connection.setAutoCommit(false);
                table.wantPlace();
                return table;
            } catch (SQLException | ProblemException e) {
                table.close();
                throw e;
            }
        } catch (SQLException e) {
            throw failed(shown, e);
        }
    }

    private boolean isMariaDb() {
        return target.engine().equals("mariadb");
    }

    private String quoted(String name) {
        String quote = isMariaDb() ? "`" : "\"";
        return quote + name.replace(quote, quote + quote) + quote;
    }

    /// The schema, where one is written before the name.
    private Optional<String> schema() {
        int point = target.table().indexOf('.');
        return target.engine().equals("postgresql") && point > 0
                ? Optional.of(target.table().substring(0, point))
                : Optional.empty();
    }

    private String bare() {
        return schema().map(s -> target.table().substring(s.length() + 1)).orElse(target.table());
    }

    private String whole(String suffix) {
        return schema().map(s -> quoted(s) + ".").orElse("") + quoted(bare() + suffix);
    }

    private void wantPlace() throws SQLException {
        Optional<String> kind = kind();
        boolean there = kind.isPresent();
        if (target.mode() == TableTarget.Mode.CREATE && there) {
            throw problem(
                    Code.TARGET_EXISTS,
                    "There is a " + shown + " already.",
                    "Write `mode: replace` or `mode: append`, or name another table.");
        }
        if (there && !kind.get().contains("TABLE")) {
            throw problem(
                    Code.TARGET_NOT_WRITABLE,
                    "The " + shown + " is a " + kind.get().toLowerCase(Locale.ROOT) + ".",
                    "Name a table.");
        }
        if (target.mode() == TableTarget.Mode.APPEND && !there) {
            throw problem(
                    Code.NO_SUCH, "There is no " + shown + " to which rows could be added.", "Write `mode: create`.");
        }
        if (isMariaDb() && target.mode() == TableTarget.Mode.APPEND) {
            wantTransactions();
        }
    }

    /// Rows in a table without transactions would stay, whatever comes after them.
    private void wantTransactions() throws SQLException {
        try (PreparedStatement asked = connection.prepareStatement(
                "SELECT engine FROM information_schema.tables WHERE table_schema = database() AND table_name = ?")) {
            asked.setString(1, bare());
            try (ResultSet found = asked.executeQuery()) {
                String engine = found.next() ? String.valueOf(found.getString(1)) : "";
                if (!engine.equalsIgnoreCase("InnoDB")) {
                    throw problem(
                            Code.TARGET_NOT_WRITABLE,
                            "The " + shown + " is kept by " + engine
                                    + ", which knows no transactions: rows could not be taken back.",
                            "Write `mode: replace`, or change the table to InnoDB.");
                }
            }
        }
    }

    /// What stands under that name: TABLE, VIEW; empty for nothing.
    private Optional<String> kind() throws SQLException {
        DatabaseMetaData meta = connection.getMetaData();
        try (ResultSet found = meta.getTables(
                isMariaDb() ? connection.getCatalog() : null,
                schema().orElse(target.engine().equals("postgresql") ? connection.getSchema() : null),
                pattern(bare(), meta),
                null)) {
            while (found.next()) {
                // Names are told apart by capitals in PostgreSQL only.
                boolean same = target.engine().equals("postgresql")
                        ? found.getString("TABLE_NAME").equals(bare())
                        : found.getString("TABLE_NAME").equalsIgnoreCase(bare());
                String type = String.valueOf(found.getString("TABLE_TYPE"));
                if (same && !type.contains("INDEX")) {
                    return Optional.of(type);
                }
            }
        }
        return Optional.empty();
    }

    private static String pattern(String name, DatabaseMetaData meta) throws SQLException {
        String escape = meta.getSearchStringEscape();
        return escape == null || escape.isEmpty()
                ? name
                : name.replace(escape, escape + escape)
                        .replace("_", escape + "_")
                        .replace("%", escape + "%");
    }

    /// Writes rows, after looking at each whether it can be held.
    ///
    /// @param query gives the fields under their keys, in order
    /// @param scratch a file that the session may write
    /// @return how many
    public long write(DuckSession session, List<Field> fields, String query, Path scratch) {
        try {
            wantNames(fields);
            List<ColumnTypes.Known> there = target.mode() == TableTarget.Mode.APPEND ? known() : List.of();
            wantHeld(session, fields, there, query);
            prepare(fields);
            return send(session, fields, there, query, scratch);
        } catch (SQLException e) {
            throw failed(shown, e);
        } catch (IOException e) {
            throw problem(
                    Code.TARGET_NOT_WRITABLE,
                    "The rows for " + shown + " could not be sent: " + e.getMessage() + ".",
                    "Look at the connection and at the room on the disk; nothing was written.");
        }
    }

    private void wantNames(List<Field> fields) {
        Set<String> seen = new HashSet<>();
        for (Field field : fields) {
            boolean tooLong =
                    switch (target.engine()) {
                        case "postgresql" -> field.name().getBytes(StandardCharsets.UTF_8).length > 63;
                        case "mariadb" ->
                            field.name().length() > 64 || field.name().endsWith(" ");
                        default -> false;
                    };
            if (tooLong
                    || field.name().indexOf('\0') >= 0
                    || !seen.add(field.name().toLowerCase(Locale.ROOT))) {
                throw problem(
                        Code.CANNOT_HOLD,
                        "The " + shown + " cannot have a column " + field.name() + ".",
                        "Give it another name in a line before.");
            }
        }
        if (isMariaDb() && bare().length() > 64 - NEW.length()) {
            throw problem(
                    Code.CANNOT_HOLD,
                    "The name of " + shown + " has more than " + (64 - NEW.length()) + " characters.",
                    "Take a shorter one.");
        }
    }

    private List<ColumnTypes.Known> known() throws SQLException {
        List<ColumnTypes.Known> columns = new ArrayList<>();
        DatabaseMetaData meta = connection.getMetaData();
        try (ResultSet found = meta.getColumns(
                isMariaDb() ? connection.getCatalog() : null,
                schema().orElse(target.engine().equals("postgresql") ? connection.getSchema() : null),
                pattern(bare(), meta),
                null)) {
            while (found.next()) {
                boolean itself = String.valueOf(found.getString("COLUMN_DEF")).equals("null")
                        && !"YES".equals(found.getString("IS_AUTOINCREMENT"));
                columns.add(new ColumnTypes.Known(
                        found.getString("COLUMN_NAME"),
                        found.getInt("DATA_TYPE"),
                        found.getString("TYPE_NAME"),
                        found.getInt("COLUMN_SIZE"),
                        found.getInt("DECIMAL_DIGITS"),
                        found.getInt("NULLABLE") == DatabaseMetaData.columnNoNulls && itself));
            }
        }
        return columns;
    }

    private static Optional<ColumnTypes.Known> of(Field field, List<ColumnTypes.Known> there) {
        return there.stream()
                .filter(k -> k.name().equals(field.name()))
                .findFirst()
                .or(() -> there.stream()
                        .filter(k -> k.name().equalsIgnoreCase(field.name()))
                        .findFirst());
    }

    private void wantHeld(DuckSession session, List<Field> fields, List<ColumnTypes.Known> there, String query) {
        List<Field> limited = new ArrayList<>();
        List<ColumnTypes.Limit> limits = new ArrayList<>();
        for (Field field : fields) {
            limit(field, there)
                    .filter(l -> !l.condition().equals("false OR (false)"))
                    .ifPresent(l -> {
                        limited.add(field);
                        limits.add(l);
                    });
        }
        there.stream()
                .filter(k ->
                        k.needed() && fields.stream().noneMatch(f -> f.name().equalsIgnoreCase(k.name())))
                .findFirst()
                .ifPresent(k -> {
                    throw problem(
                            Code.CANNOT_HOLD,
                            "The " + shown + " needs a value in " + k.name()
                                    + ", and no column of the job is called so.",
                            "Add that column in a line.");
                });
        if (limits.isEmpty()) {
            return;
        }
        String counts = limits.stream()
                .map(l -> "count(*) FILTER (WHERE " + l.condition() + ")")
                .collect(Collectors.joining(", "));
        List<@Nullable Object> found = session.query("SELECT " + counts + " FROM (" + query + ") AS ours")
                .rows()
                .getFirst();
        for (int i = 0; i < limits.size(); i++) {
            long count = ((Number) java.util.Objects.requireNonNull(found.get(i))).longValue();
            if (count > 0) {
                throw tooMuch(session, limited.get(i), limits.get(i), count, query);
            }
        }
    }

    private Optional<ColumnTypes.Limit> limit(Field field, List<ColumnTypes.Known> there) {
        if (target.mode() != TableTarget.Mode.APPEND) {
            return types.limit(field);
        }
        ColumnTypes.Known known = of(field, there)
                .orElseThrow(() -> problem(
                        Code.NO_SUCH_COLUMN,
                        "The " + shown + " has no column " + field.name() + ".",
                        Names.suggest(
                                field.name(),
                                there.stream().map(ColumnTypes.Known::name).toList(),
                                "Its columns: "
                                        + there.stream()
                                                .map(ColumnTypes.Known::name)
                                                .collect(Collectors.joining(", "))
                                        + ". Leave it out, or rename it in a line before.")));
        ColumnTypes.Limit limit = types.limit(field, known);
        if (limit == null) {
            throw problem(
                    Code.CANNOT_HOLD,
                    field.name() + " is " + field.column().type().label() + ", and in " + shown + " it is "
                            + known.shown() + ".",
                    "Make it the same type in a line before: read_as, or set.");
        }
        return Optional.of(limit);
    }

    private ProblemException tooMuch(
            DuckSession session, Field field, ColumnTypes.Limit limit, long count, String query) {
        String some = session
                .query("SELECT DISTINCT " + field.key() + "::VARCHAR FROM (" + query + ") AS ours WHERE "
                        + limit.condition() + " ORDER BY 1 LIMIT " + SHOWN)
                .rows()
                .stream()
                .map(r -> r.getFirst() == null
                        ? "∅"
                        : Visible.markOddities(r.getFirst().toString()))
                .collect(Collectors.joining(", "));
        return problem(
                Code.CANNOT_HOLD,
                String.format(
                        "%,d %s of %s cannot be held as %s: %s%s.",
                        count,
                        count == 1 ? "value" : "values",
                        field.name(),
                        limit.holder(),
                        some,
                        count > SHOWN ? ", …" : ""),
                "Mend them in a line before. Nothing was written.");
    }

    /// Makes the table that takes the rows.
    private void prepare(List<Field> fields) throws SQLException {
        if (target.mode() == TableTarget.Mode.APPEND) {
            return;
        }
        inNewTable = isMariaDb();
        if (inNewTable) {
            // What a run that was killed left behind.
            run("DROP TABLE IF EXISTS " + whole(NEW));
        } else if (target.mode() == TableTarget.Mode.REPLACE) {
            run("DROP TABLE IF EXISTS " + whole(""));
        }
        String columns = fields.stream()
                .map(f -> quoted(f.name()) + " " + types.of(f.column().type()))
                .collect(Collectors.joining(", "));
        run("CREATE TABLE " + whole(inNewTable ? NEW : "") + " (" + columns + ")"
                + (isMariaDb() ? " ENGINE=InnoDB CHARACTER SET utf8mb4 COLLATE utf8mb4_bin" : ""));
    }

    private void run(String statement) throws SQLException {
        try (Statement run = connection.createStatement()) {
            run.execute(statement);
        }
    }

    private String into(List<Field> fields, List<ColumnTypes.Known> there) {
        return whole(inNewTable ? NEW : "") + " ("
                + fields.stream()
                        .map(f ->
                                quoted(of(f, there).map(ColumnTypes.Known::name).orElse(f.name())))
                        .collect(Collectors.joining(", "))
                + ")";
    }

    private long send(
            DuckSession session, List<Field> fields, List<ColumnTypes.Known> there, String query, Path scratch)
            throws SQLException, IOException {
        String into = into(fields, there);
        if (target.engine().equals("postgresql")) {
            session.run("COPY (" + query + ") TO " + DuckSession.text(scratch.toString())
                    + " (FORMAT csv, HEADER false, FORCE_QUOTE *)");
            try (InputStream rows = Files.newInputStream(scratch)) {
                return connection
                        .unwrap(PGConnection.class)
                        .getCopyAPI()
                        .copyIn("COPY " + into + " FROM STDIN (FORMAT csv, ENCODING 'UTF8')", rows, 1 << 16);
            }
        }
        if (target.engine().equals("duckdb")) {
            session.run("COPY (" + query + ") TO " + DuckSession.text(scratch.toString()) + " (FORMAT parquet)");
            try (Statement insert = connection.createStatement()) {
                return insert.executeLargeUpdate("INSERT INTO " + into + " SELECT * FROM read_parquet("
                        + DuckSession.text(scratch.toString()) + ")");
            }
        }
        String places = fields.stream().map(_ -> "?").collect(Collectors.joining(", ", "(", ")"));
        try (PreparedStatement insert = connection.prepareStatement("INSERT INTO " + into + " VALUES " + places)) {
            long[] sent = {0};
            session.each(query, row -> {
                try {
                    for (int i = 0; i < row.size(); i++) {
                        insert.setObject(i + 1, value(row.get(i)));
                    }
                    insert.addBatch();
                    if (++sent[0] % AT_ONCE == 0) {
                        insert.executeBatch();
                    }
                } catch (SQLException e) {
                    throw failed(shown, e);
                }
            });
            insert.executeBatch();
            return sent[0];
        }
    }

    /// Days and moments go as texts, which no time zone changes on the way; SQLite keeps them so.
    private @Nullable Object value(@Nullable Object value) {
        boolean sqlite = target.engine().equals("sqlite");
        return switch (value) {
            case null -> null;
            case BigDecimal number when sqlite -> number.toPlainString();
            case Boolean truth when sqlite -> truth ? 1L : 0L;
            case LocalDate day -> day.toString();
            case LocalDateTime moment -> Literals.time(moment);
            default -> value;
        };
    }

    /// Makes the rows those of the table, for everybody.
    public void commit() {
        try {
            connection.commit();
            if (inNewTable) {
                boolean there = kind().isPresent();
                run("DROP TABLE IF EXISTS " + whole(OLD));
                run("RENAME TABLE " + (there ? whole("") + " TO " + whole(OLD) + ", " : "") + whole(NEW) + " TO "
                        + whole(""));
                inNewTable = false;
                run("DROP TABLE IF EXISTS " + whole(OLD));
            }
        } catch (SQLException e) {
            throw failed(shown, e);
        }
    }

    @Override
    public void close() {
        try (connection) {
            if (!connection.getAutoCommit()) {
                connection.rollback();
            }
            if (inNewTable) {
                run("DROP TABLE IF EXISTS " + whole(NEW));
            }
        } catch (SQLException e) {
            System.getLogger(DatabaseTable.class.getName()).log(System.Logger.Level.DEBUG, "not closed", e);
        }
    }

    private ProblemException problem(Code code, String what, String todo) {
        return problem(shown, code, what, todo);
    }

    /// @param shown the table, in words
    private static ProblemException problem(String shown, Code code, String what, String todo) {
        return new ProblemException(Problem.about(code, shown, what, todo));
    }

    private static ProblemException failed(String shown, SQLException e) {
        return ServerAddress.refusal(e)
                .map(p -> problem(shown, p.code(), "The " + shown + ": " + p.what(), p.todo()))
                .orElseGet(() -> problem(
                        shown,
                        Code.TARGET_NOT_WRITABLE,
                        "The " + shown + " cannot be written: "
                                + String.valueOf(e.getMessage())
                                        .lines()
                                        .findFirst()
                                        .orElse("") + ".",
                        "Look at your rights to it, and at what depends on it. Nothing was written."));
    }
}
