package fixshelf.shelf;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/// Where a path leads in truth.
public final class RealPath {
    private RealPath() {}

    /// The path with the links of all folders that are there already followed.
    public static Path of(Path file) {
        Path known = file.toAbsolutePath().normalize();
        List<Path> rest = new ArrayList<>();
        while (known != null && !Files.exists(known)) {
            rest.addFirst(known.getFileName());
            known = known.getParent();
        }
        try {
            Path real = known == null ? file.toAbsolutePath().normalize() : known.toRealPath();
            for (Path name : rest) {
                real = real.resolve(name);
            }
            return real;
        } catch (IOException e) {
            return file.toAbsolutePath().normalize();
        }
    }
}
