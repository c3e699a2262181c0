package fixshelf.fetch;

import fixshelf.plan.ReadOptions;
import fixshelf.type.Type;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/// Something that a copy is made of.
public interface Source {
    /// What the user has to allow before; empty where nothing outside is touched.
    Optional<Consent.Place> place();

    /// As messages name it.
    String shown();

    /// Writes the names and the rows into a file that is new. A problem is a [fixshelf.problem.ProblemException].
    ///
    /// @param shelf which has to be allowed what the source leads to on the way
    void write(Path shelf, Path to) throws IOException;

    /// The types that it says of its columns, once these were written as texts; empty where it says none.
    default List<Type> types() {
        return List.of();
    }

    /// What writes the names and the rows.
    interface Rows {
        void write(Path shelf, Path to) throws IOException;
    }

    static Source of(Optional<Consent.Place> place, String shown, Rows rows) {
        return of(place, shown, rows, List::of);
    }

    /// @param types those of its columns, once these were written
    static Source of(Optional<Consent.Place> place, String shown, Rows rows, Supplier<List<Type>> types) {
        return new Source() {
            @Override
            public Optional<Consent.Place> place() {
                return place;
            }

            @Override
            public String shown() {
                return shown;
            }

            @Override
            public void write(Path shelf, Path to) throws IOException {
                rows.write(shelf, to);
            }

            @Override
            public List<Type> types() {
                return types.get();
            }
        };
    }

    static Source of(ReadOptions options, ReadOptions.Form.Elsewhere form) {
        return switch (form) {
            case ReadOptions.Form.Server server -> server(ServerAddress.of(options.path(), server.engine()), server);
            case ReadOptions.Form.Web web -> new WebTable(options.path(), web);
            case ReadOptions.Form.Typed typed ->
                of(Optional.empty(), "Typed into its page", (_, to) -> write(typed, to), typed::types);
        };
    }

    private static void write(ReadOptions.Form.Typed typed, Path to) throws IOException {
        try (CopyWriter out = new CopyWriter(to)) {
            out.row(typed.columns());
            for (List<@Nullable String> row : typed.rows()) {
                out.row(row);
            }
        }
    }

    private static Source server(ServerAddress address, ReadOptions.Form.Server form) {
        String what = !form.query().isEmpty()
                ? "A query"
                : form.table().isEmpty() ? "The only table" : "Table " + form.table();
        ServerTable table = new ServerTable(address, form);
        return of(
                Optional.of(address.place()),
                what + " of " + address.shown(),
                (_, to) -> table.write(to),
                table::declared);
    }
}
