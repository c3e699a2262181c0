package fixshelf.fetch;

import fixshelf.engine.Stop;
import fixshelf.plan.ReadOptions;
import fixshelf.source.FileParts;
import fixshelf.source.SqlText;
import java.io.IOException;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// The tables of a server, each with its first rows, to be chosen by sight.
final class ServerParts {
    private static final int MOST = 60;

    private final Connection connection;
    private final ReadOptions options;
    private final ReadOptions.Form.Server form;

    ServerParts(Connection connection, ReadOptions options, ReadOptions.Form.Server form) {
        this.connection = connection;
        this.options = options;
        this.form = form;
    }

    /// A table that cannot be read says why, and the others are read.
    ///
    /// @param shown its name as a page says it
    /// @param quoted as the server takes it
    FileParts.Part part(String shown, String quoted) throws SQLException, IOException {
        Stop.check();
        ReadOptions one = options.withForm(form.of(shown));
        Savepoint before = connection.setSavepoint();
        try (Statement statement = connection.createStatement()) {
            statement.setMaxRows(FileParts.SHOWN_ROWS);
            try (ResultSet rows = statement.executeQuery("SELECT * FROM " + quoted)) {
                return new FileParts.Part("table " + shown, size(rows), one, names(rows), first(rows));
            }
        } catch (SQLException e) {
            connection.rollback(before);
            String why = String.valueOf(e.getMessage()).lines().findFirst().orElse("");
            return new FileParts.Part("table " + shown, why, one, List.of(), List.of());
        }
    }

    /// Whether that many tables are shown already.
    static boolean isEnough(List<FileParts.Part> parts) {
        return parts.size() >= MOST;
    }

    private static String size(ResultSet rows) throws SQLException {
        int columns = rows.getMetaData().getColumnCount();
        return columns + (columns == 1 ? " column" : " columns");
    }

    private static List<String> names(ResultSet rows) throws SQLException {
        List<String> names = new ArrayList<>();
        for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
            names.add(rows.getMetaData().getColumnLabel(i));
        }
        return names;
    }

    private static List<List<@Nullable String>> first(ResultSet rows) throws SQLException, IOException {
        List<List<@Nullable String>> first = new ArrayList<>();
        while (rows.next()) {
            List<@Nullable String> row = new ArrayList<>();
            for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
                row.add(SqlText.of(rows, i));
            }
            first.add(row);
        }
        return first;
    }
}
