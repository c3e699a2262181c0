package fixshelf.source;

import fixshelf.plan.ReadOptions;
import fixshelf.type.Type;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The columns of files that were looked at, as long as these stay as they were: a job is planned at every
/// edit, and for the names a workbook has to be opened, a JSON file read to its end, a query run.
final class KnownColumns {
    private static final int MOST = 64;
    private static final Map<Key, Known> COLUMNS = new LinkedHashMap<>();

    private KnownColumns() {}

    /// A file as it is now, and how it is read.
    private record Key(Path file, ReadOptions options, long bytes, Object changed, Optional<Object> key) {}

    /// Columns as they are written in a file.
    ///
    /// @param types those that it says of them; empty where it says none
    record Known(List<String> names, List<Type> types) {
        Known {
            names = List.copyOf(names);
            types = List.copyOf(types);
        }

        /// Names without any type.
        static Known texts(List<String> names) {
            return new Known(names, List.of());
        }
    }

    /// What looks at a file that was not looked at yet.
    interface Looking {
        Known columns() throws IOException;
    }

    /// The columns as they are written in the file.
    static Known of(Path file, ReadOptions options, Looking looking) throws IOException {
        Key key = key(file, options);
        synchronized (COLUMNS) {
            Known known = COLUMNS.get(key);
            if (known != null) {
                return known;
            }
        }
        Known found = looking.columns();
        synchronized (COLUMNS) {
            COLUMNS.put(key, found);
            if (COLUMNS.size() > MOST) {
                COLUMNS.remove(COLUMNS.keySet().iterator().next());
            }
        }
        return found;
    }

    private static Key key(Path file, ReadOptions options) throws IOException {
        BasicFileAttributes now = Files.readAttributes(file, BasicFileAttributes.class);
        return new Key(file, options, now.size(), now.lastModifiedTime(), Optional.ofNullable(now.fileKey()));
    }
}
