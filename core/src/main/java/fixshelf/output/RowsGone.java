package fixshelf.output;

import fixshelf.fetch.ServerAddress;
import fixshelf.fetch.ServerTable;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Rows that are deleted from a table of a server, where they are: those that were shown before, and no others. All is
/// one transaction, which is taken back when the table is not the one that was looked at.
public final class RowsGone {
    private static final int AT_ONCE = 1_000;

    private final ServerAddress address;
    private final ReadOptions.Form.Server form;

    public RowsGone(ServerAddress address, ReadOptions.Form.Server form) {
        this.address = address;
        this.form = form;
    }

    /// Rows by what stands in them, each with how often it is there.
    public static final class Rows {
        private final Map<String, Long> counts = new HashMap<>();

        public void add(List<? extends @Nullable String> cells) {
            counts.merge(digest(cells), 1L, Long::sum);
        }

        /// Counts a row, and says whether it was there more often by now than in others.
        public boolean addIfMore(List<? extends @Nullable String> cells, Rows others) {
            String row = digest(cells);
            return counts.merge(row, 1L, Long::sum) > others.counts.getOrDefault(row, 0L);
        }

        public long size() {
            return counts.values().stream().mapToLong(Long::longValue).sum();
        }

        /// What is here and not in others, which hold nothing else.
        public Rows without(Rows others) {
            Rows left = new Rows();
            left.counts.putAll(counts);
            others.counts.forEach((row, count) -> {
                long rest = left.counts.getOrDefault(row, 0L) - count;
                if (rest < 0) {
                    throw new IllegalArgumentException("rows that are not among the others");
                }
                if (rest == 0) {
                    left.counts.remove(row);
                } else {
                    left.counts.put(row, rest);
                }
            });
            return left;
        }

        /// Changes with every row.
        public String sign() {
            List<String> all = new ArrayList<>();
            new TreeMap<>(counts).forEach((row, count) -> all.add(row + count));
            return digest(all).substring(0, 12);
        }

        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Rows rows && rows.counts.equals(counts);
        }

        @Override
        public int hashCode() {
            return counts.hashCode();
        }
    }

    private static String digest(List<? extends @Nullable String> cells) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            for (String cell : cells) {
                byte[] bytes = cell == null ? new byte[0] : cell.getBytes(StandardCharsets.UTF_8);
                digest.update(((cell == null ? "-" : "") + bytes.length + ":").getBytes(StandardCharsets.UTF_8));
                digest.update(bytes);
            }
            return HexFormat.of().formatHex(digest.digest(), 0, 16);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /// What is told before: the statement, and all that would happen with it.
    ///
    /// @param named triggers, and tables that would lose rows too
    public record Told(String statement, List<String> named) {}

    /// Looks at the table, and changes nothing.
    public Told look(long count) {
        try (Connection connection = address.connectToWrite(form.user(), form.passwordFrom())) {
            connection.setReadOnly(true);
            String table = new ServerTable(address, form).quotedTable(connection);
            List<String> by = by(connection, table);
            return new Told(statement(table, by, count), named(connection, table));
        } catch (SQLException e) {
            throw failed(e);
        }
    }

    private boolean isMariaDb() {
        return address.engine().equals("mariadb");
    }

    private String statement(String table, List<String> by, long count) {
        return "DELETE FROM " + table + " WHERE "
                + (by.size() == 1 ? by.getFirst() : "(" + String.join(", ", by) + ")") + " IN (… "
                + String.format("%,d", count) + (count == 1 ? " row" : " rows") + " …)";
    }

    /// By what a row is found again: its own address, or the key.
    private List<String> by(Connection connection, String table) throws SQLException {
        if (!isMariaDb()) {
            return List.of("ctid");
        }
        List<String> key = new ArrayList<>();
        try (ResultSet found = connection
                .getMetaData()
                .getPrimaryKeys(
                        connection.getCatalog(),
                        null,
                        table.substring(1, table.length() - 1).replace("``", "`"))) {
            Map<Integer, String> columns = new TreeMap<>();
            while (found.next()) {
                columns.put(
                        (int) found.getShort("KEY_SEQ"),
                        "`" + found.getString("COLUMN_NAME").replace("`", "``") + "`");
            }
            key.addAll(columns.values());
        }
        if (key.isEmpty()) {
            throw problem(
                    Code.CANNOT_SAY,
                    "The table has no primary key, and MariaDB gives its rows no address.",
                    "Write the rows that stay into another table: an output with `mode: create`.");
        }
        return key;
    }

    private List<String> named(Connection connection, String table) throws SQLException {
        List<String> named = new ArrayList<>();
        String triggers = isMariaDb()
                ? "SELECT concat('the trigger ', trigger_name) FROM information_schema.triggers WHERE event_object_schema ="
                        + " database() AND event_object_table = ? AND event_manipulation = 'DELETE'"
                : "SELECT 'the trigger ' || tgname FROM pg_trigger WHERE tgrelid = ?::regclass AND NOT tgisinternal"
                        + " AND tgtype & 8 <> 0";
        String keys = isMariaDb()
                ? "SELECT concat(table_name, ' refers to it: ', lower(delete_rule)) FROM"
                        + " information_schema.referential_constraints WHERE constraint_schema = database() AND"
                        + " referenced_table_name = ?"
                : "SELECT conrelid::regclass || ' refers to it: ' || CASE confdeltype WHEN 'c' THEN 'cascade' WHEN 'n' THEN"
                        + " 'set null' WHEN 'd' THEN 'set default' ELSE 'restrict' END FROM pg_constraint WHERE"
                        + " confrelid = ?::regclass AND contype = 'f'";
        for (String query : List.of(triggers, keys)) {
            try (PreparedStatement asked = connection.prepareStatement(query)) {
                asked.setString(
                        1, isMariaDb() ? table.substring(1, table.length() - 1).replace("``", "`") : table);
                try (ResultSet found = asked.executeQuery()) {
                    while (found.next()) {
                        named.add(found.getString(1));
                    }
                }
            }
        }
        return named;
    }

    /// Deletes rows, if the table still holds what was looked at.
    ///
    /// @param all what the table held
    /// @param gone what of it goes
    /// @return how many went
    public long delete(Rows all, Rows gone) {
        try (Connection connection = address.connectToWrite(form.user(), form.passwordFrom())) {
            connection.setAutoCommit(false);
            try {
                long count = delete(connection, all, gone);
                connection.commit();
                return count;
            } catch (SQLException | ProblemException e) {
                connection.rollback();
                throw e;
            }
        } catch (SQLException e) {
            throw failed(e);
        }
    }

    private long delete(Connection connection, Rows all, Rows gone) throws SQLException {
        ServerTable server = new ServerTable(address, form);
        String table = server.quotedTable(connection);
        List<String> by = by(connection, table);
        if (!isMariaDb()) {
            try (Statement lock = connection.createStatement()) {
                lock.execute("LOCK TABLE " + table + " IN SHARE ROW EXCLUSIVE MODE");
                lock.execute("SET datestyle = 'ISO, YMD'");
                lock.execute("SET extra_float_digits = 1");
            }
        }
        Rows there = new Rows();
        Map<String, Long> open = new HashMap<>(gone.counts);
        List<List<String>> addresses = new ArrayList<>();
        server.each(connection, table, by, (where, cells) -> {
            there.add(cells);
            String row = digest(cells);
            long left = open.getOrDefault(row, 0L);
            if (left > 0) {
                open.put(row, left - 1);
                addresses.add(where);
            }
        });
        if (!there.equals(all)) {
            throw problem(
                    Code.SOURCE_CHANGED,
                    String.format(
                            "The table is not the one that was looked at: it holds %,d rows now, and held %,d, or others.",
                            there.size(), all.size()),
                    "Nothing was deleted. Look again, then delete.");
        }
        String places =
                by.stream().map(b -> b + (isMariaDb() ? " = ?" : " = ?::tid")).collect(Collectors.joining(" AND "));
        long deleted = 0;
        try (PreparedStatement statement = connection.prepareStatement("DELETE FROM " + table + " WHERE " + places)) {
            for (int i = 0; i < addresses.size(); i++) {
                for (int b = 0; b < by.size(); b++) {
                    statement.setString(b + 1, addresses.get(i).get(b));
                }
                statement.addBatch();
                if ((i + 1) % AT_ONCE == 0 || i + 1 == addresses.size()) {
                    for (int each : statement.executeBatch()) {
                        deleted += Math.max(0, each);
                    }
                }
            }
        }
        if (deleted != gone.size()) {
            throw problem(
                    Code.SOURCE_CHANGED,
                    String.format("%,d rows would have gone, and not %,d.", deleted, gone.size()),
                    "Nothing was deleted. Look at triggers and rules of the table.");
        }
        return deleted;
    }

    private ProblemException problem(Code code, String what, String todo) {
        String shown = (form.table().isEmpty() ? "The table" : "Table " + form.table()) + " of " + address.shown();
        return new ProblemException(Problem.about(code, address.shown(), shown + ": " + what, todo));
    }

    private ProblemException failed(SQLException e) {
        return ServerAddress.refusal(e)
                .map(p -> problem(p.code(), p.what(), p.todo()))
                .orElseGet(() -> problem(
                        Code.TARGET_NOT_WRITABLE,
                        "It refuses: "
                                + String.valueOf(e.getMessage())
                                        .lines()
                                        .findFirst()
                                        .orElse("") + ".",
                        "Nothing was deleted. Look at your rights, and at what refers to the table."));
    }
}
