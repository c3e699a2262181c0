package fixshelf.fetch;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.UserFolder;
import java.io.IOException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import java.util.stream.Stream;

/// Drivers of other databases, which the user puts into the folder `drivers` beside the settings. A shelf cannot bring
/// one: it would be code of a stranger.
final class Drivers {
    private static final Map<String, List<Driver>> LOADED = new HashMap<>();

    private Drivers() {}

    static Path folder() {
        return UserFolder.path().resolve("drivers");
    }

    /// A connection by the first driver that takes the address.
    static Connection connect(String address, Properties properties) throws SQLException {
        List<String> known = new ArrayList<>();
        for (Driver driver : all()) {
            known.add(driver.getClass().getName());
            if (driver.acceptsURL(address)) {
                Connection connection = driver.connect(address, properties);
                if (connection != null) {
                    return connection;
                }
            }
        }
        String kind = address.replaceFirst("^(jdbc:[^:]*).*", "$1");
        throw new ProblemException(Problem.about(
                Code.NO_SUCH,
                kind,
                "There is no driver for addresses that begin with " + kind + ": here "
                        + (known.isEmpty() ? "is none at all." : "are " + String.join(", ", known) + "."),
                "Put the driver's .jar into " + folder() + "."));
    }

    /// The drivers in a file, which is looked into once, as long as it stays the same.
    private static synchronized List<Driver> of(Path jar) throws IOException {
        String file = jar + " " + Files.size(jar) + " " + Files.getLastModifiedTime(jar);
        List<Driver> known = LOADED.get(file);
        if (known != null) {
            return known;
        }
        List<Driver> drivers = new ArrayList<>();
        // Each in a loader of its own, so that two versions of one library do not meet.
        var own = new URLClassLoader(new URL[] {jar.toUri().toURL()}, Drivers.class.getClassLoader());
        for (var found = ServiceLoader.load(Driver.class, own).iterator(); found.hasNext(); ) {
            Driver driver = found.next();
            if (driver.getClass().getClassLoader() == own) {
                drivers.add(driver);
            }
        }
        LOADED.put(file, drivers);
        return drivers;
    }

    private static List<Driver> all() {
        List<Driver> drivers = new ArrayList<>();
        try (Stream<Path> files = Files.isDirectory(folder()) ? Files.list(folder()) : Stream.empty()) {
            for (Path jar :
                    files.filter(f -> f.toString().endsWith(".jar")).sorted().toList()) {
                drivers.addAll(of(jar));
            }
        } catch (IOException | ServiceConfigurationError e) {
            throw new ProblemException(Problem.about(
                    Code.FILE_BROKEN,
                    folder().toString(),
                    "A driver in " + folder() + " cannot be loaded: " + e.getMessage() + ".",
                    "Take it out, or put the right one there."));
        }
        return drivers;
    }
}
