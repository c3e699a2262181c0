package fixshelf.work;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/// A workbook that is being written: its sheets stand in the order of the outputs, and are filled one after another, in
/// any order.
final class WorkbookFile implements AutoCloseable {
    private final OutputStream out;
    private final Workbook book;
    private final Map<String, Worksheet> sheets = new LinkedHashMap<>();
    private boolean closed;

    WorkbookFile(Path file, List<String> names) throws IOException {
        out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 16);
        book = new Workbook(out, "Fix Shelf", "1.0");
        names.forEach(n -> sheets.put(n, book.newWorksheet(n)));
    }

    Worksheet sheet(String name) {
        return Objects.requireNonNull(sheets.get(name), name);
    }

    /// Ends the file, once.
    @Override
    public void close() throws IOException {
        if (!closed) {
            closed = true;
            try (out) {
                book.close();
            }
        }
    }
}
