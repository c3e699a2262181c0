package fixshelf.source;

import fixshelf.plan.ReadOptions;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The names of columns of files that were looked at, as long as these stay as they were: a job is planned at every
/// edit, and for the names a workbook has to be opened, a JSON file read to its end, a query run.
final class KnownNames {
    private static final int MOST = 64;
    private static final Map<Key, List<String>> NAMES = new LinkedHashMap<>();

    private KnownNames() {}

    /// A file as it is now, and how it is read.
    private record Key(Path file, ReadOptions options, long bytes, Object changed, Optional<Object> key) {}

    /// What gives the names of a file that was not looked at yet.
    interface Looking {
        List<String> names() throws IOException;
    }

    /// The names of the columns as they are written in the file.
    static List<String> of(Path file, ReadOptions options, Looking looking) throws IOException {
        Key key = key(file, options);
        synchronized (NAMES) {
            List<String> known = NAMES.get(key);
            if (known != null) {
                return known;
            }
        }
        List<String> names = List.copyOf(looking.names());
        synchronized (NAMES) {
            NAMES.put(key, names);
            if (NAMES.size() > MOST) {
                NAMES.remove(NAMES.keySet().iterator().next());
            }
        }
        return names;
    }

    private static Key key(Path file, ReadOptions options) throws IOException {
        BasicFileAttributes now = Files.readAttributes(file, BasicFileAttributes.class);
        return new Key(file, options, now.size(), now.lastModifiedTime(), Optional.ofNullable(now.fileKey()));
    }
}
