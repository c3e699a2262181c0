package fixshelf.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;

/// The same work as one hand-written statement, on the same DuckDB.
final class HandWritten {
    private HandWritten() {}

    public static void main(String[] arguments) throws Exception {
        String script = arguments.length > 2 ? arguments[2] : "visits";
        String sql = Files.readString(Path.of("bench/scripts/" + script + ".sql"))
                .replace("{in}", arguments[0])
                .replace("{out}", arguments[1])
                .replace("{list}", arguments.length > 3 ? arguments[3] : "");
        try (Connection connection = DriverManager.getConnection("jdbc:duckdb:");
                Statement statement = connection.createStatement()) {
            statement.execute(sql);
        } catch (SQLException e) {
            System.err.println(e.getMessage());
            System.exit(1);
        }
    }
}
