package fixshelf.fetch;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Where a database is: `postgresql://host:5432/database`, `mariadb://host/database`, or an address
/// of a driver that the user has. Settings of a driver can load classes and read files, so of the
/// first two only names are taken.
///
/// @param engine `postgresql`, `mariadb` or `jdbc`
/// @param jdbc as the driver takes it
/// @param shown as messages and pages name it
/// @param place what the user is asked to allow
public record ServerAddress(String engine, String jdbc, String shown, Consent.Place place) {
    private static final Map<String, Integer> PORTS = Map.of("postgresql", 5432, "mariadb", 3306);
    private static final Pattern PLAIN = Pattern.compile(
            "([a-z]+)://(\\[[0-9A-Fa-f:.]+]|[\\p{L}\\p{N}._-]+)(?::([0-9]{1,5}))?/([\\p{L}\\p{N}_$.-]+)");
    private static final Pattern HOST = Pattern.compile("//([^/;?,:@]+)(?::([0-9]{1,5}))?");
    private static final Pattern SECRET = Pattern.compile("(?i)(password|passwd|pwd)\\s*=|//[^/@]*:[^/@]*@");

    /// Reads an address as it is written; a problem is a [ProblemException].
    public static ServerAddress of(String written, String engine) {
        if (SECRET.matcher(written).find()) {
            throw new ProblemException(Problem.about(
                    Code.BAD_FIELD,
                    "read",
                    "There is a password in an address.",
                    "Take it out: name a variable of the system that holds it in `password_from`."));
        }
        return engine.equals("jdbc") ? other(written) : known(written, engine);
    }

    private static ServerAddress known(String written, String engine) {
        Matcher matcher = PLAIN.matcher(written.strip());
        if (!matcher.matches() || !matcher.group(1).equals(engine)) {
            throw new ProblemException(Problem.about(
                    Code.BAD_FIELD,
                    "read",
                    "This is no address of a database: " + written.strip() + ".",
                    "Write " + engine + "://host:" + PORTS.get(engine) + "/database, and nothing after it."));
        }
        String host = matcher.group(2);
        int port = matcher.group(3) == null ? PORTS.get(engine) : Integer.parseInt(matcher.group(3));
        return new ServerAddress(
                engine,
                "jdbc:" + engine + "://" + host + ":" + port + "/" + matcher.group(4),
                matcher.group(4) + " at " + host + ":" + port,
                Consent.Place.host(host, port));
    }

    private static ServerAddress other(String written) {
        String address = written.strip();
        if (!address.startsWith("jdbc:")) {
            throw new ProblemException(Problem.about(
                    Code.BAD_FIELD,
                    "read",
                    "This is no address of a driver: " + address + ".",
                    "Write it as the driver's documentation says, such as jdbc:kind://host/database."));
        }
        for (String own : PORTS.keySet()) {
            if (address.toLowerCase(Locale.ROOT).startsWith("jdbc:" + own + ":")) {
                throw new ProblemException(Problem.about(
                        Code.BAD_FIELD,
                        "kind",
                        "This address belongs to kind " + own + ".",
                        "Write `kind: " + own + "` and " + own + "://host/database."));
            }
        }
        // A driver may find more in its address than a host, so the whole of it is asked for.
        Matcher host = HOST.matcher(address);
        String shown = host.find() ? host.group(1) : address.replaceFirst("[;?].*", "");
        return new ServerAddress("jdbc", address, shown, new Consent.Place(address));
    }

    /// A connection that may write; the user allowed that before.
    public Connection connectToWrite(String user, String passwordFrom) throws SQLException {
        try {
            return DriverManager.getConnection(jdbc, properties(user, passwordFrom, false));
        } catch (SQLException e) {
            if (String.valueOf(e.getSQLState()).startsWith("28")) {
                Secrets.forget(passwordFrom);
            }
            throw e;
        }
    }

    /// What the driver is told beside the address.
    Properties properties(String user, String passwordFrom, boolean onlyReading) {
        Properties properties = new Properties();
        if (!user.isEmpty()) {
            properties.setProperty("user", user);
        }
        if (!passwordFrom.isEmpty()) {
            properties.setProperty(
                    "password",
                    Secrets.find(passwordFrom)
                            .orElseThrow(() -> new ProblemException(Problem.about(
                                    Code.NO_PASSWORD,
                                    passwordFrom,
                                    "There is no password for " + shown + ": the variable " + passwordFrom
                                            + " of the system is not set.",
                                    "Set it before Fix Shelf is started; it never stands in a page."))));
        }
        switch (engine) {
            case "postgresql" -> {
                properties.setProperty("readOnly", String.valueOf(onlyReading));
                properties.setProperty("connectTimeout", "15");
                properties.setProperty("ApplicationName", "Fix Shelf");
                properties.setProperty("tcpKeepAlive", "true");
            }
            case "mariadb" -> {
                properties.setProperty("connectTimeout", "15000");
                properties.setProperty("allowLocalInfile", "false");
                properties.setProperty("tinyInt1isBit", "false");
                if (jdbc.matches("jdbc:mariadb://(localhost|127\\..*|\\[::1]).*")) {
                    properties.setProperty("sslMode", "disable");
                }
            }
            default -> {}
        }
        return properties;
    }

    /// Why a server does not let a connection be, where that is the reason.
    public static Optional<Problem> refusal(SQLException e) {
        String state = String.valueOf(e.getSQLState());
        if (state.startsWith("28")) {
            return Optional.of(Problem.about(
                    Code.NO_PASSWORD,
                    "server",
                    "The server does not let this user in.",
                    "Look at `user` and at the variable that `password_from` names."));
        }
        return state.startsWith("08")
                ? Optional.of(Problem.about(
                        Code.FILE_MISSING,
                        "server",
                        "The server does not answer, or ended the connection.",
                        "Look whether it runs and can be reached from here, then try again; nothing was kept."))
                : Optional.empty();
    }
}
