package fixshelf.output;

import fixshelf.fetch.ServerAddress;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.Amounts;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/// Rows that are deleted from a table of a database, where they are: those that were shown before,
/// and no others. All is one transaction, which is taken back when the table is not the one that
/// was looked at.
public final class RowsGone {
    private final LiveTable table;

    private RowsGone(LiveTable table) {
        this.table = table;
    }

    /// Of a table of PostgreSQL or MariaDB.
    public static RowsGone of(ServerAddress address, ReadOptions.Form.Server form) {
        return new RowsGone(
                form.engine().equals("mariadb")
                        ? new LiveMariaTable(address, form)
                        : new LivePostgresTable(address, form));
    }

    /// Of a table of a database that is a file.
    public static RowsGone of(Path file, ReadOptions.Form.Database form) {
        return new RowsGone(new LiveFileTable(file, form));
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
    /// @param named triggers, tables that would lose rows too, views that look at it
    public record Told(String statement, List<String> named) {}

    /// Looks at the table, and changes nothing.
    public Told look(long count) {
        try (Connection connection = table.connect(false)) {
            String name = table.quoted(connection);
            List<String> by = table.by(connection, name);
            return new Told("DELETE FROM " + name + " WHERE " + table.told(by, count), table.named(connection, name));
        } catch (SQLException e) {
            throw failed(e);
        }
    }

    /// Deletes rows, if the table still holds what was looked at.
    ///
    /// @param all what the table held
    /// @param gone what of it goes
    /// @return how many went
    public long delete(Rows all, Rows gone) {
        try (Connection connection = table.connect(true)) {
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
        String name = table.quoted(connection);
        List<String> by = table.by(connection, name);
        table.begin(connection, name);
        Rows there = new Rows();
        Map<String, Long> open = new HashMap<>(gone.counts);
        List<List<String>> addresses = new ArrayList<>();
        Map<List<String>, String> contents = new HashMap<>();
        table.each(connection, name, by, (where, cells) -> {
            there.add(cells);
            String row = digest(cells);
            if (table.isByContent(by)
                    && !contents.computeIfAbsent(where, _ -> row).equals(row)) {
                throw problem(
                        Code.CANNOT_SAY,
                        "It has no key, and two of its rows differ in a way by which it cannot tell them apart.",
                        "Nothing was deleted. Give it a key, or write the rows that stay into another table.");
            }
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
        long deleted = addresses.isEmpty() ? 0 : table.delete(connection, name, by, addresses);
        if (deleted != gone.size()) {
            throw problem(
                    Code.SOURCE_CHANGED,
                    Amounts.of(deleted, "row") + String.format(" would have gone, and not %,d.", gone.size()),
                    "Nothing was deleted. Look at triggers and rules of the table.");
        }
        return deleted;
    }

    private ProblemException problem(Code code, String what, String todo) {
        return new ProblemException(Problem.about(code, table.shown(), table.shown() + ": " + what, todo));
    }

    private ProblemException failed(SQLException e) {
        return table.refusal(e)
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
