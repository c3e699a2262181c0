package fixshelf.source;

import fixshelf.engine.Stop;
import fixshelf.type.Type;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.PreparedStatement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/// The rows that a query gives, one by one as they come, with every value as text: floating numbers as their shortest
/// digits, bytes as hexadecimal digits. Closing it closes the connection.
final class QueryRecords implements Records {
    private final Connection connection;
    private final PreparedStatement statement;
    private final ResultSet rows;
    private final Function<SQLException, RuntimeException> broken;
    private final List<String> names = new ArrayList<>();
    private final List<Type> types;
    private int line;

    /// What says the types of the columns of a query.
    interface Declaring {
        List<Type> types(ResultSetMetaData columns) throws SQLException;
    }

    /// @param broken what is said where rows cannot be read to their end
    QueryRecords(
            Connection connection,
            PreparedStatement statement,
            Declaring declaring,
            Function<SQLException, RuntimeException> broken)
            throws SQLException {
        this.connection = connection;
        this.broken = broken;
        this.statement = statement;
        Stop.began(this::cancel);
        try {
            rows = statement.executeQuery();
        } finally {
            Stop.ended();
        }
        ResultSetMetaData meta = rows.getMetaData();
        for (int i = 1; i <= meta.getColumnCount(); i++) {
            names.add(meta.getColumnLabel(i));
        }
        types = declaring.types(meta);
    }

    private void cancel() {
        try {
            statement.cancel();
        } catch (SQLException e) {
            System.getLogger(QueryRecords.class.getName()).log(System.Logger.Level.DEBUG, "nothing to cancel", e);
        }
    }

    @Override
    public List<String> names() {
        return names;
    }

    @Override
    public List<Type> types() {
        return types;
    }

    @Override
    public Optional<Row> next() {
        try {
            if (!rows.next()) {
                return Optional.empty();
            }
            List<@Nullable String> cells = new ArrayList<>();
            for (int i = 1; i <= names.size(); i++) {
                cells.add(SqlText.of(rows, i));
            }
            return Optional.of(new Row(++line, cells));
        } catch (SQLException e) {
            throw broken.apply(e);
        }
    }

    @Override
    public void close() {
        try {
            connection.close();
        } catch (SQLException e) {
            System.getLogger(QueryRecords.class.getName()).log(System.Logger.Level.DEBUG, "not closed", e);
        }
    }
}
