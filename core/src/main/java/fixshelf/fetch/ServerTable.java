package fixshelf.fetch;

import fixshelf.engine.Stop;
import fixshelf.language.tree.Names;
import fixshelf.plan.QueryValues;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.source.DeclaredTypes;
import fixshelf.source.FileParts;
import fixshelf.source.QueryStatement;
import fixshelf.source.SqlText;
import fixshelf.type.Type;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Properties;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyOut;

/// The rows of a table, or of a query, of a database server: in one transaction that may only read, with a time-out.
public final class ServerTable {
    private static final int AT_ONCE = 2_000;
    private static final int MOST_COLUMNS = 16_384;

    private final ServerAddress address;
    private final ReadOptions.Form.Server form;
    private List<Type> declared = List.of();

    public ServerTable(ServerAddress address, ReadOptions.Form.Server form) {
        this.address = address;
        this.form = form;
    }

    /// Hears of a row: by what it is found again, and its cells as a copy has them.
    public interface RowHearer {
        void row(List<String> address, List<@Nullable String> cells) throws SQLException;
    }

    /// The name of the table as the server takes it.
    public String quotedTable(Connection connection) throws SQLException {
        return table(connection).quoted(quote(connection));
    }

    private String quote(Connection connection) throws SQLException {
        return address.engine().equals("jdbc")
                ? connection.getMetaData().getIdentifierQuoteString().strip()
                : isMariaDb() ? "`" : "\"";
    }

    private boolean isMariaDb() {
        return address.engine().equals("mariadb");
    }

    /// Every row of a table, with its cells as a copy has them.
    ///
    /// @param by columns, or the row's own address, by which it is found again
    public void each(Connection connection, String table, List<String> by, RowHearer hearer) throws SQLException {
        List<String> cells = new ArrayList<>();
        try (Statement asked = connection.createStatement();
                ResultSet none = asked.executeQuery("SELECT * FROM " + table + " LIMIT 0")) {
            ResultSetMetaData meta = none.getMetaData();
            for (int i = 1; i <= meta.getColumnCount(); i++) {
                String quote = isMariaDb() ? "`" : "\"";
                String name = quote + meta.getColumnLabel(i).replace(quote, quote + quote) + quote;
                cells.add(isMariaDb() ? name : asText(name, meta.getColumnTypeName(i)));
            }
        }
        String query = "SELECT " + String.join(", ", by) + ", " + String.join(", ", cells) + " FROM " + table
                + (isMariaDb() ? " FOR UPDATE" : "");
        try (Statement statement = connection.createStatement()) {
            statement.setFetchSize(AT_ONCE);
            try (ResultSet rows = statement.executeQuery(query)) {
                while (rows.next()) {
                    List<String> where = new ArrayList<>();
                    for (int i = 1; i <= by.size(); i++) {
                        where.add(rows.getString(i));
                    }
                    List<@Nullable String> values = new ArrayList<>();
                    for (int i = 1; i <= cells.size(); i++) {
                        values.add(isMariaDb() ? SqlText.of(rows, by.size() + i) : rows.getString(by.size() + i));
                    }
                    hearer.row(where, values);
                }
            }
        }
    }

    /// The types that the server says of the columns that were written.
    List<Type> declared() {
        return declared;
    }

    /// Writes the rows into a file, the names of the columns first, and says how many they were.
    long write(Path to) throws IOException {
        return reading(connection -> read(connection, to));
    }

    /// The tables that it holds, each with its first rows.
    List<FileParts.Part> parts(ReadOptions options) throws IOException {
        return reading(connection -> {
            String quote = quote(connection);
            ServerParts first = new ServerParts(connection, options, form);
            List<FileParts.Part> parts = new ArrayList<>();
            for (Table table : tables(connection, connection.getMetaData())) {
                if (!ServerParts.isEnough(parts)) {
                    parts.add(first.part(table.shown(), table.quoted(quote)));
                }
            }
            if (parts.isEmpty()) {
                throw problem(Code.NO_SUCH, "There is no table in it.", "Look at the name of the database.");
            }
            return parts;
        });
    }

    private interface Reading<T> {
        T on(Connection connection) throws SQLException, IOException;
    }

    /// Reads in a transaction that may only read, with a time-out.
    private <T> T reading(Reading<T> work) throws IOException {
        Properties properties = address.properties(form.user(), form.passwordFrom(), true);
        try (Connection connection = connect(properties)) {
            begin(connection);
            Stop.began(() -> abort(connection));
            try {
                return work.on(connection);
            } finally {
                Stop.ended();
                rollBack(connection);
            }
        } catch (SQLException e) {
            Stop.check();
            throw failed(e);
        }
    }

    private Connection connect(Properties properties) throws SQLException {
        return address.engine().equals("jdbc")
                ? Drivers.connect(address.jdbc(), properties)
                : DriverManager.getConnection(address.jdbc(), properties);
    }

    /// Nothing that a query calls may write, either.
    private void begin(Connection connection) throws SQLException {
        connection.setReadOnly(true);
        connection.setAutoCommit(false);
        switch (address.engine()) {
            case "postgresql" -> {
                run(connection, "SET TRANSACTION READ ONLY");
                run(connection, "SET statement_timeout = " + form.seconds() * 1000L);
                run(connection, "SET datestyle = 'ISO, YMD'");
                run(connection, "SET extra_float_digits = 1");
            }
            case "mariadb" -> {
                run(connection, "SET SESSION TRANSACTION READ ONLY");
                run(connection, "SET max_statement_time = " + form.seconds());
            }
            default -> {}
        }
    }

    private static void run(Connection connection, String statement) throws SQLException {
        try (Statement run = connection.createStatement()) {
            run.execute(statement);
        }
    }

    private static void rollBack(Connection connection) {
        try {
            connection.rollback();
        } catch (SQLException e) {
            System.getLogger(ServerTable.class.getName()).log(System.Logger.Level.DEBUG, "not rolled back", e);
        }
    }

    private static void abort(Connection connection) {
        try {
            connection.abort(Runnable::run);
        } catch (SQLException e) {
            System.getLogger(ServerTable.class.getName()).log(System.Logger.Level.DEBUG, "not ended", e);
        }
    }

    private long read(Connection connection, Path to) throws SQLException, IOException {
        QueryValues query = query(connection);
        if (address.engine().equals("postgresql")) {
            return query.values().isEmpty() ? copied(connection, query.sql(), to) : asked(connection, query, to);
        }
        if (isMariaDb() && !form.query().isEmpty()) {
            // Inside of another, it cannot write its rows into a file of the server.
            try (PreparedStatement none = statement(connection, inner(query.sql()), query)) {
                none.executeQuery().close();
            }
        }
        try (PreparedStatement statement = statement(connection, query.sql(), query)) {
            statement.setFetchSize(AT_ONCE);
            if (address.engine().equals("jdbc")) {
                statement.setQueryTimeout(form.seconds());
            }
            try (ResultSet rows = statement.executeQuery()) {
                declared = DeclaredTypes.of(rows.getMetaData());
                return written(rows, names(rows.getMetaData()), SqlText::of, to);
            }
        }
    }

    private interface Texts {
        @Nullable
        String of(ResultSet rows, int column) throws SQLException, IOException;
    }

    private static long written(ResultSet rows, List<String> names, Texts texts, Path to)
            throws SQLException, IOException {
        try (CopyWriter out = new CopyWriter(to)) {
            out.row(names);
            List<@Nullable String> cells = new ArrayList<>();
            while (rows.next()) {
                Stop.check();
                cells.clear();
                for (int i = 1; i <= names.size(); i++) {
                    cells.add(texts.of(rows, i));
                }
                out.row(cells);
            }
            return out.rows();
        }
    }

    private PreparedStatement statement(Connection connection, String sql, QueryValues query) throws SQLException {
        return QueryStatement.of(connection, sql, query, address.engine());
    }

    /// The rows of a query with values, which a stream takes none of: asked for row by row, as texts of the server.
    private long asked(Connection connection, QueryValues query, Path to) throws SQLException, IOException {
        List<String> names;
        List<String> texts;
        try (PreparedStatement prepared = statement(connection, inner(query.sql()), query);
                ResultSet none = prepared.executeQuery()) {
            names = names(none.getMetaData());
            texts = texts(none.getMetaData());
            declared = DeclaredTypes.of(none.getMetaData());
        }
        String sql = "SELECT " + String.join(", ", texts) + " FROM (\n" + query.sql() + "\n) AS fix_shelf("
                + numbered(names) + ")";
        try (PreparedStatement statement = statement(connection, sql, query)) {
            statement.setFetchSize(AT_ONCE);
            try (ResultSet rows = statement.executeQuery()) {
                return written(rows, names, ResultSet::getString, to);
            }
        }
    }

    /// Columns as texts, by numbers instead of names.
    private static List<String> texts(ResultSetMetaData meta) throws SQLException {
        List<String> texts = new ArrayList<>();
        for (int i = 0; i < meta.getColumnCount(); i++) {
            texts.add(asText("c" + i, meta.getColumnTypeName(i + 1)));
        }
        return texts;
    }

    private static String numbered(List<String> names) {
        return IntStream.range(0, names.size()).mapToObj(i -> "c" + i).collect(Collectors.joining(", "));
    }

    private List<String> names(ResultSetMetaData meta) throws SQLException {
        List<String> names = new ArrayList<>();
        for (int i = 1; i <= meta.getColumnCount(); i++) {
            names.add(meta.getColumnLabel(i));
        }
        if (names.size() > MOST_COLUMNS) {
            throw problem(
                    Code.FILE_BROKEN,
                    "It has more than 16,384 columns, which is no table that is worked with here.",
                    "Name a part of them in a query.");
        }
        return names;
    }

    /// The server itself writes all values as text, which is several times as fast. The query is asked for its columns
    /// before; what could close the brackets here would be no query there.
    private long copied(Connection connection, String query, Path to) throws SQLException, IOException {
        List<String> names;
        List<String> texts;
        // Nothing is prepared, so that an operator of the server that is a ? stays one.
        try (Statement asked = connection.createStatement();
                ResultSet none = asked.executeQuery(inner(query))) {
            names = names(none.getMetaData());
            texts = texts(none.getMetaData());
            declared = DeclaredTypes.of(none.getMetaData());
        }
        String nulls = names.size() == 1 ? ", NULL U&'\\FDD1'" : "";
        String copy = "COPY (SELECT " + String.join(", ", texts) + " FROM (\n" + query + "\n) AS fix_shelf("
                + numbered(names) + ")) TO STDOUT (FORMAT csv, ENCODING 'UTF8', FORCE_QUOTE *" + nulls + ")";
        try (CopyWriter heading = new CopyWriter(to)) {
            heading.row(names);
        }
        CopyOut out = connection.unwrap(PGConnection.class).getCopyAPI().copyOut(copy);
        try (var file = Files.newOutputStream(to, java.nio.file.StandardOpenOption.APPEND);
                var buffered = new java.io.BufferedOutputStream(file, 1 << 16)) {
            for (byte[] row = out.readFromCopy(); row != null; row = out.readFromCopy()) {
                buffered.write(row);
                Stop.check();
            }
            return out.getHandledRowCount();
        } finally {
            if (out.isActive()) {
                out.cancelCopy();
            }
        }
    }

    /// The query as part of another, which gives no row.
    private static String inner(String query) {
        return "SELECT * FROM (\n" + query + "\n) AS fix_shelf LIMIT 0";
    }

    /// Floating-point numbers without a power of ten, unless they had more than a hundred digits then; bytes as
    /// hexadecimal digits; moments in one way, wherever this machine stands.
    private static String asText(String column, String type) {
        return switch (type) {
            case "float4", "float8" ->
                "CASE WHEN " + column + "::text LIKE '%e%' AND abs(" + column + ") BETWEEN 1e-90 AND 1e90 THEN "
                        + column + "::text::numeric::text ELSE " + column + "::text END";
            case "timestamptz" ->
                "CASE WHEN isfinite(" + column + ") THEN (" + column + " AT TIME ZONE 'UTC')::text || '+00' ELSE "
                        + column + "::text END";
            case "bytea" -> "encode(" + column + ", 'hex')";
            default -> column + "::text";
        };
    }

    private QueryValues query(Connection connection) throws SQLException {
        if (form.query().isEmpty()) {
            return new QueryValues("SELECT * FROM " + quotedTable(connection), List.of(), List.of());
        }
        QueryValues query = QueryValues.of(OneStatement.trimmed(form.query()));
        boolean one = address.engine().equals("jdbc") ? query.sql().indexOf(';') < 0 : OneStatement.is(query.sql());
        if (!one) {
            throw problem(
                    Code.NO_SUCH,
                    "The query is more than one statement, or cannot be told from several.",
                    "Write one SELECT, and no ; in it but inside of plain quotes.");
        }
        return query;
    }

    /// The table that is named, or the only one there is.
    private Table table(Connection connection) throws SQLException {
        List<Table> tables = tables(connection, connection.getMetaData());
        if (!form.table().isEmpty()) {
            return find(tables);
        }
        if (tables.size() == 1) {
            return tables.getFirst();
        }
        throw problem(
                Code.NO_SUCH,
                tables.isEmpty()
                        ? "There is no table in it."
                        : "There are " + tables.size() + " tables in it, and none of them is named.",
                tables.isEmpty()
                        ? "Look at the name of the database."
                        : "Write `table:` and one of " + listed(tables) + ".");
    }

    /// @param schema empty where there is only one, or where it need not be said
    private record Table(String schema, String name) {
        String shown() {
            return schema.isEmpty() ? name : schema + "." + name;
        }

        String quoted(String quote) {
            String whole = quote + name.replace(quote, quote + quote) + quote;
            return schema.isEmpty() ? whole : quote + schema.replace(quote, quote + quote) + quote + "." + whole;
        }
    }

    private Table find(List<Table> tables) {
        String wanted = form.table();
        return called(tables, t -> wanted.equals(t.shown()))
                .or(() -> called(tables, t -> wanted.equals(t.name())))
                .or(() -> called(tables, t -> wanted.equalsIgnoreCase(t.shown())))
                .or(() -> called(tables, t -> wanted.equalsIgnoreCase(t.name())))
                .orElseThrow(() -> problem(
                        Code.NO_SUCH,
                        "There is no table " + wanted + " in it.",
                        Names.suggest(
                                wanted,
                                tables.stream().map(Table::shown).toList(),
                                tables.isEmpty() ? "Look at your rights." : "Its tables: " + listed(tables) + ".")));
    }

    /// The one of which that is so; several, of which none is meant more than another, are a problem.
    private Optional<Table> called(List<Table> tables, Predicate<Table> so) {
        List<Table> found = tables.stream().filter(so).toList();
        if (found.size() > 1) {
            throw problem(
                    Code.NO_SUCH,
                    "There are " + found.size() + " tables in it that are called " + form.table() + ".",
                    "Write which: " + listed(found) + ".");
        }
        return found.stream().findFirst();
    }

    private List<Table> tables(Connection connection, DatabaseMetaData meta) throws SQLException {
        boolean schemas = !address.engine().equals("mariadb");
        List<Table> tables = new ArrayList<>();
        try (ResultSet found = meta.getTables(
                connection.getCatalog(),
                null,
                "%",
                address.engine().equals("jdbc")
                        ? new String[] {"TABLE", "VIEW", "BASE TABLE"}
                        : new String[] {
                            "TABLE", "VIEW", "MATERIALIZED VIEW", "PARTITIONED TABLE", "FOREIGN TABLE", "BASE TABLE"
                        })) {
            while (found.next()) {
                String schema = schemas && found.getString("TABLE_SCHEM") != null ? found.getString("TABLE_SCHEM") : "";
                boolean ofServer =
                        schema.toLowerCase(Locale.ROOT).matches("information_schema|pg_catalog|pg_toast.*|sys");
                if (!ofServer) {
                    tables.add(
                            new Table(schema.equalsIgnoreCase("public") ? "" : schema, found.getString("TABLE_NAME")));
                }
            }
        }
        return tables;
    }

    private static String listed(List<Table> tables) {
        return Names.listed(tables.stream().map(Table::shown).toList());
    }

    private ProblemException problem(Code code, String what, String todo) {
        return new ProblemException(Problem.about(code, address.shown(), address.shown() + ": " + what, todo));
    }

    private ProblemException failed(SQLException e) {
        String said =
                String.valueOf(e.getMessage()).lines().findFirst().orElse("").strip();
        String state = String.valueOf(e.getSQLState());
        boolean late = state.equals("57014")
                || state.equals("70100")
                || e.getErrorCode() == 1969
                || e instanceof java.sql.SQLTimeoutException;
        if (late) {
            return problem(
                    Code.ENGINE_FAILED,
                    "The query took longer than " + form.seconds() + " seconds and was ended.",
                    "Ask for less, or write `seconds:` and a greater number.");
        }
        if (state.startsWith("28")) {
            Secrets.forget(form.passwordFrom());
            return problem(
                    Code.NO_PASSWORD,
                    "The server does not let " + (form.user().isEmpty() ? "this user" : form.user()) + " in.",
                    form.passwordFrom().isEmpty()
                            ? "Look at `user`, and write `password_from` and a variable that holds its password."
                            : "Look at `user`, and at the variable " + form.passwordFrom() + ".");
        }
        if (state.startsWith("08") || state.equals("null")) {
            return problem(
                    Code.FILE_MISSING,
                    "The server does not answer, or ended the connection: " + said + ".",
                    "Look whether it runs and can be reached from here, then try again; nothing was kept.");
        }
        if (state.equals("25006")) {
            return problem(Code.NO_SUCH, "The query would write, and only reading is allowed.", "Write one SELECT.");
        }
        return problem(
                Code.NO_SUCH,
                "The server refuses the query: " + said + ".",
                form.query().isEmpty() ? "Look at your rights to the table." : "Mend the query; it is one SELECT.");
    }
}
