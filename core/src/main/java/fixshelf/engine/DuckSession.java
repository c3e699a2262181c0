package fixshelf.engine;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.duckdb.DuckDBAppender;
import org.duckdb.DuckDBColumnType;
import org.duckdb.DuckDBConnection;
import org.duckdb.DuckDBFunctions;
import org.duckdb.DuckDBScalarFunction;
import org.duckdb.DuckDBScalarFunctionBuilder;
import org.jspecify.annotations.Nullable;

/// A DuckDB database in memory that may touch only the files it was opened for.
///
/// Not safe for use by several threads at once, but for [#cancel].
public final class DuckSession implements AutoCloseable {
    private final Connection connection;
    private volatile @Nullable Statement running;
    private volatile boolean cancelled;
    private int functions;

    private static @Nullable DuckSession shared;

    /// The sessions that ask the engine now. Its own memory is given back when the program ends, which must not happen
    /// below what runs in it.
    private static final Set<DuckSession> ASKING = ConcurrentHashMap.newKeySet();

    private static final long END_MILLIS = 2_000;
    private static volatile boolean ending;

    static {
        Runtime.getRuntime().addShutdownHook(new Thread(DuckSession::endAll, "end of the engine"));
    }

    private DuckSession(Connection connection) {
        this.connection = connection;
    }

    /// Opens a session that may read and write these files, and put what does not fit in memory into `spill`.
    public static DuckSession open(List<Path> files, Optional<Path> spill) {
        Properties properties = new Properties();
        properties.setProperty("autoinstall_known_extensions", "false");
        properties.setProperty("autoload_known_extensions", "false");
        try {
            DuckSession session = new DuckSession(DriverManager.getConnection("jdbc:duckdb:", properties));
            String paths = files.stream().map(f -> text(f.toString())).collect(Collectors.joining(", ", "[", "]"));
            session.run("SET allowed_paths = " + paths);
            if (spill.isPresent()) {
                session.run("SET temp_directory = " + text(spill.get().toString()));
                session.run("SET allowed_directories = [" + text(spill.get().toString()) + "]");
            }
            // Where rows are numbered over a view with rowid, and the first ones kept, it stops with an internal error.
            session.run("SET disabled_optimizers = 'top_n_window_elimination'");
            // Moments are written in one way, wherever this machine stands.
            session.run("SET TimeZone = 'UTC'");
            session.run("SET enable_external_access = false");
            session.run("SET lock_configuration = true");
            return session;
        } catch (SQLException e) {
            throw failure(e);
        }
    }

    /// Loads the engine on a thread of its own, so that it is there when the first session is opened.
    public static void prepare() {
        Thread.ofPlatform().daemon().name("engine").start(() -> {
            try (DuckSession none = forQueries()) {
                System.getLogger(DuckSession.class.getName()).log(System.Logger.Level.DEBUG, "{0} is loaded", none);
            } catch (ProblemException | LinkageError e) {
                // It is told where a session is opened; a program that ends meanwhile cannot load it any more.
                System.getLogger(DuckSession.class.getName()).log(System.Logger.Level.DEBUG, "loading", e);
            }
        });
    }

    /// A session without any file.
    public static DuckSession open() {
        return open(List.of(), Optional.empty());
    }

    /// A session without any file, for queries that leave nothing behind: all of them share one database, which takes
    /// as long to open as twenty such queries.
    public static DuckSession forQueries() {
        synchronized (DuckSession.class) {
            if (shared != null) {
                try {
                    DuckSession session = shared.beside();
                    session.run("SELECT 1");
                    return session;
                } catch (ProblemException e) {
                    // After an error of its own the engine answers nothing more in that database.
                    System.getLogger(DuckSession.class.getName()).log(System.Logger.Level.DEBUG, "begins anew", e);
                }
            }
            shared = open();
            return shared.beside();
        }
    }

    private DuckSession beside() {
        try {
            return new DuckSession(connection.unwrap(DuckDBConnection.class).duplicate());
        } catch (SQLException e) {
            throw failure(e);
        }
    }

    /// A text as an SQL literal.
    public static String text(String value) {
        return "'" + value.replace("'", "''") + "'";
    }

    /// A name as a quoted identifier.
    public static String name(String name) {
        return "\"" + name.replace("\"", "\"\"") + "\"";
    }

    /// Runs a statement that gives nothing back.
    public void run(String sql) {
        try (Statement statement = connection.createStatement()) {
            begin(statement);
            statement.execute(sql);
        } catch (SQLException e) {
            throw failed(e);
        } finally {
            done();
        }
    }

    /// As [#append], on a second thread. Nothing else may be asked of the session until it is closed, and rows that
    /// were given are not changed any more.
    public RowSink<String> appendQueued(String table) {
        return new QueuedRows<>(() -> append(table));
    }

    /// Adds rows to a table of texts, without any SQL between.
    public RowSink<String> append(String table) {
        try {
            DuckDBAppender appender = connection.unwrap(DuckDBConnection.class).createAppender("main", table);
            return new RowSink<>() {
                @Override
                public void add(List<@Nullable String> row) {
                    try {
                        appender.beginRow();
                        for (String cell : row) {
                            if (cell == null) {
                                appender.appendNull();
                            } else {
                                appender.append(cell);
                            }
                        }
                        appender.endRow();
                    } catch (SQLException e) {
                        throw failed(e);
                    }
                }

                @Override
                public void close() {
                    try {
                        appender.close();
                    } catch (SQLException e) {
                        throw failed(e);
                    }
                }
            };
        } catch (SQLException e) {
            throw failed(e);
        }
    }

    /// Runs a query and holds its rows; for results that are known to be small.
    public Grid query(String sql) {
        try (Statement statement = connection.createStatement()) {
            begin(statement);
            try (ResultSet rows = statement.executeQuery(sql)) {
                return read(rows);
            }
        } catch (SQLException e) {
            throw failed(e);
        } finally {
            done();
        }
    }

    /// Runs a query and hands over its rows one by one.
    public void each(String sql, Consumer<List<@Nullable Object>> row) {
        try (Statement statement = connection.createStatement()) {
            begin(statement);
            try (ResultSet rows = statement.executeQuery(sql)) {
                List<Column> columns = columns(rows);
                while (rows.next()) {
                    row.accept(read(rows, columns));
                }
            }
        } catch (SQLException e) {
            throw failed(e);
        } finally {
            done();
        }
    }

    /// Runs a statement that writes rows, and gives how many.
    public long write(String sql) {
        try (Statement statement = connection.createStatement()) {
            begin(statement);
            return statement.executeLargeUpdate(sql);
        } catch (SQLException e) {
            throw failed(e);
        } finally {
            done();
        }
    }

    /// A function that counts in a tally, and says of a row whether it goes on.
    public String told(Tally tally) {
        return function("told", tally.parameters(), DuckDBColumnType.BOOLEAN, tally::apply);
    }

    /// A function of ours, which is called for each row where it stands, and not worked out anew elsewhere.
    ///
    /// @param stem what its name begins with
    String function(
            String stem, List<DuckDBColumnType> parameters, DuckDBColumnType gives, DuckDBScalarFunction applied) {
        String name = stem + "_" + functions++;
        try (DuckDBScalarFunctionBuilder function = DuckDBFunctions.scalarFunction()) {
            function.withName(name)
                    .withParameters(parameters.toArray(DuckDBColumnType[]::new))
                    .withReturnType(gives)
                    .withVolatile()
                    .withVectorizedFunction(applied)
                    .register(connection);
            return name;
        } catch (SQLException e) {
            throw failure(e);
        }
    }

    /// The only number that a query gives.
    public long number(String sql) {
        Object value = query(sql).rows().getFirst().getFirst();
        return value instanceof Number number ? number.longValue() : 0;
    }

    /// Stops all that runs, and waits until it has stopped, but not for ever.
    private static void endAll() {
        ending = true;
        long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(END_MILLIS);
        while (!ASKING.isEmpty() && System.nanoTime() < until) {
            ASKING.forEach(DuckSession::cancel);
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(10));
        }
    }

    private void begin(Statement statement) throws SQLException {
        running = statement;
        ASKING.add(this);
        Stop.began(() -> end(statement));
        if (cancelled || ending) {
            throw new SQLException("INTERRUPT Error: cancelled");
        }
    }

    private void done() {
        running = null;
        ASKING.remove(this);
        Stop.ended();
    }

    private ProblemException failed(SQLException e) {
        return cancelled || Stop.isAsked() ? new ProblemException(Stop.problem()) : failure(e);
    }

    /// Stops what runs, and everything that would come after it. May be called from any thread.
    public void cancel() {
        cancelled = true;
        Statement statement = running;
        if (statement != null) {
            end(statement);
        }
    }

    private static void end(Statement statement) {
        try {
            statement.cancel();
        } catch (SQLException e) {
            System.getLogger(DuckSession.class.getName()).log(System.Logger.Level.DEBUG, "nothing to cancel", e);
        }
    }

    private static ProblemException failure(SQLException e) {
        String message = String.valueOf(e.getMessage());
        String first = message.lines().findFirst().orElse(message);
        boolean full = message.contains("No space left")
                || message.contains("Could not write all bytes")
                || message.contains("max_temp_directory_size");
        return new ProblemException(
                full
                        ? Problem.about(
                                Code.DISK_FULL,
                                "disk",
                                "The disk is full: " + first,
                                "Make room, or write to another place.")
                        : Problem.about(
                                Code.ENGINE_FAILED,
                                "DuckDB",
                                first,
                                message.lines().skip(1).limit(3).collect(Collectors.joining(" "))));
    }

    private static Grid read(ResultSet rows) throws SQLException {
        List<Column> columns = columns(rows);
        List<List<@Nullable Object>> all = new ArrayList<>();
        while (rows.next()) {
            all.add(read(rows, columns));
        }
        return new Grid(columns, all);
    }

    private static List<Column> columns(ResultSet rows) throws SQLException {
        ResultSetMetaData meta = rows.getMetaData();
        List<Column> columns = new ArrayList<>();
        for (int i = 1; i <= meta.getColumnCount(); i++) {
            columns.add(new Column(meta.getColumnLabel(i), type(meta, i)));
        }
        return columns;
    }

    private static List<@Nullable Object> read(ResultSet rows, List<Column> columns) throws SQLException {
        List<@Nullable Object> row = new ArrayList<>(columns.size());
        for (int i = 1; i <= columns.size(); i++) {
            // A time as Java's old type would be moved where the calendar changed in 1582.
            boolean time = columns.get(i - 1).type() instanceof Type.Timestamp;
            row.add(time ? rows.getObject(i, LocalDateTime.class) : plain(rows.getObject(i)));
        }
        return row;
    }

    private static Type type(ResultSetMetaData meta, int i) throws SQLException {
        String name = meta.getColumnTypeName(i);
        return switch (name) {
            case "VARCHAR" -> Type.TEXT;
            case "BOOLEAN" -> Type.BOOLEAN;
            case "DATE" -> Type.DATE;
            case "TIMESTAMP" -> Type.TIMESTAMP;
            case "DOUBLE" -> Type.NUMBER;
            default ->
                name.startsWith("DECIMAL") ? new Type.Decimal(meta.getPrecision(i), meta.getScale(i)) : Type.INTEGER;
        };
    }

    private static @Nullable Object plain(@Nullable Object value) {
        return switch (value) {
            case null -> null;
            case String text -> text;
            case Boolean truth -> truth;
            case BigDecimal number -> number;
            case LocalDate day -> day;
            case java.math.BigInteger number -> number.longValue();
            case Double number -> Double.isFinite(number) ? number : null;
            case Number number -> number.longValue();
            default -> value.toString();
        };
    }

    @Override
    public void close() {
        try {
            connection.close();
        } catch (SQLException e) {
            System.getLogger(DuckSession.class.getName()).log(System.Logger.Level.DEBUG, "closing", e);
        }
    }
}
