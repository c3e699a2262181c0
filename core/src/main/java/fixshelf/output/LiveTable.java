package fixshelf.output;

import fixshelf.fetch.ServerTable.RowHearer;
import fixshelf.problem.Problem;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/// A table where it is, as far as rows are deleted from it. What its rows are found by again is
/// their own address, a key, or what stands in them.
interface LiveTable {
    int AT_ONCE = 1_000;

    /// @param toWrite whether rows are to be deleted; else nothing can be changed with the connection
    Connection connect(boolean toWrite) throws SQLException;

    /// The name as the database takes it.
    String quoted(Connection connection) throws SQLException;

    /// By what a row is found again, as expressions over the table.
    List<String> by(Connection connection, String table) throws SQLException;

    /// Whether a row is found by what stands in it, so that others could be found by the same.
    default boolean isByContent(List<String> by) {
        return false;
    }

    /// What has to be said before the rows are read that may go.
    default void begin(Connection connection, String table) throws SQLException {}

    /// Every row, with its cells as a copy has them.
    void each(Connection connection, String table, List<String> by, RowHearer hearer) throws SQLException;

    /// The condition by which a row is found, with a place for its value.
    default String condition(String by) {
        return by + " = ?";
    }

    /// Queries that name what would happen beside, each with the table as its only argument.
    List<String> beside();

    /// The name of the table as these queries take it.
    String besideOf(String table);

    /// As people know it: `visits of rooms at host:5432`.
    String shown();

    /// Why the database refuses, where that is known.
    default Optional<Problem> refusal(SQLException e) {
        return Optional.empty();
    }

    /// Triggers, tables that would lose rows too, views that look at it.
    default List<String> named(Connection connection, String table) throws SQLException {
        List<String> named = new ArrayList<>();
        for (String query : beside()) {
            try (PreparedStatement asked = connection.prepareStatement(query)) {
                asked.setString(1, besideOf(table));
                try (ResultSet found = asked.executeQuery()) {
                    while (found.next()) {
                        named.add(found.getString(1));
                    }
                }
            }
        }
        return named;
    }

    /// How the rows that go are told in a statement, such as `ctid IN (… 3 rows …)`.
    default String told(List<String> by, long count) {
        return (by.size() == 1 ? by.getFirst() : "(" + String.join(", ", by) + ")") + " IN (… "
                + String.format("%,d", count) + (count == 1 ? " row" : " rows") + " …)";
    }

    /// Deletes the rows with these addresses, and says how many went.
    default long delete(Connection connection, String table, List<String> by, List<List<String>> addresses)
            throws SQLException {
        String where = by.stream().map(this::condition).collect(Collectors.joining(" AND "));
        long deleted = 0;
        try (PreparedStatement statement = connection.prepareStatement("DELETE FROM " + table + " WHERE " + where)) {
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
        return deleted;
    }
}
