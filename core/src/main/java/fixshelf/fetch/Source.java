package fixshelf.fetch;

import fixshelf.plan.ReadOptions;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
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

    static Source of(ReadOptions options, ReadOptions.Form.Elsewhere form) {
        return switch (form) {
            case ReadOptions.Form.Server server -> server(ServerAddress.of(options.path(), server.engine()), server);
            case ReadOptions.Form.Web web -> new WebTable(options.path(), web);
            case ReadOptions.Form.Typed typed -> typed(typed);
        };
    }

    private static Source server(ServerAddress address, ReadOptions.Form.Server form) {
        return new Source() {
            @Override
            public Optional<Consent.Place> place() {
                return Optional.of(address.place());
            }

            @Override
            public String shown() {
                return (!form.query().isEmpty()
                                ? "A query"
                                : form.table().isEmpty() ? "The only table" : "Table " + form.table())
                        + " of " + address.shown();
            }

            @Override
            public void write(Path shelf, Path to) throws IOException {
                new ServerTable(address, form).write(to);
            }
        };
    }

    private static Source typed(ReadOptions.Form.Typed form) {
        return new Source() {
            @Override
            public Optional<Consent.Place> place() {
                return Optional.empty();
            }

            @Override
            public String shown() {
                return "Typed into its page";
            }

            @Override
            public void write(Path shelf, Path to) throws IOException {
                try (CopyWriter out = new CopyWriter(to)) {
                    out.row(form.columns());
                    for (List<@Nullable String> row : form.rows()) {
                        out.row(row);
                    }
                }
            }
        };
    }
}
