package fixshelf.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.List;

/// The tools that the rooms lend, in SQLite, as a volunteer's small program keeps them: no types to speak of, two
/// layouts of days, names as they were said at the door.
final class ToolLoans {
    static final String FILE = "tool-loans.sqlite";

    private static final List<String> TOOLS =
            List.of("drill", "soldering iron", "sewing machine", "chain tool", "multimeter", "heat gun");
    private static final List<String> NAMES = List.of(
            "Ottoline Fenn",
            "Piers Wadlow",
            "piers wadlow",
            "Maud Thistlewood",
            "Joss Appleyard",
            "Renee Ostler",
            "Wren  Hallow");

    private ToolLoans() {}

    static void write(Path file) throws IOException {
        Path part = file.resolveSibling("." + file.getFileName() + ".part");
        Files.deleteIfExists(part);
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + part)) {
            connection.setAutoCommit(false);
            try (Statement make = connection.createStatement()) {
                make.execute("CREATE TABLE loans (loan INTEGER, tool, lent_to, lent_on, back_on, deposit)");
                make.execute("CREATE VIEW still_out AS SELECT * FROM loans WHERE back_on IS NULL");
            }
            fill(connection);
            connection.commit();
        } catch (SQLException e) {
            throw new IOException("the demo's database cannot be made", e);
        }
        Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    }

    private static void fill(Connection connection) throws SQLException {
        try (PreparedStatement insert = connection.prepareStatement("INSERT INTO loans VALUES (?, ?, ?, ?, ?, ?)")) {
            for (int i = 1; i <= 80; i++) {
                LocalDate day = LocalDate.of(2026, 1, 7).plusDays(i * 3L / 2);
                insert.setInt(1, i);
                insert.setString(2, TOOLS.get(i * 7 % TOOLS.size()) + (i % 11 == 0 ? " " : ""));
                insert.setString(3, NAMES.get(i * 5 % NAMES.size()));
                insert.setString(
                        4,
                        i % 4 == 0 ? day.toString().replaceFirst("(\\d+)-(\\d+)-(\\d+)", "$3/$2/$1") : day.toString());
                insert.setString(
                        5,
                        i % 5 == 0
                                ? null
                                : i % 13 == 0 ? "n/a" : day.plusDays(i % 9 + 1).toString());
                insert.setObject(6, i % 6 == 0 ? null : i * 25 % 400 / 10.0);
                insert.addBatch();
            }
            insert.executeBatch();
        }
    }
}
