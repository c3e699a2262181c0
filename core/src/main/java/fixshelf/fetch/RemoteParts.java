package fixshelf.fetch;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.source.FileParts;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/// What is in no file here, before one of its tables is chosen.
public final class RemoteParts {
    private RemoteParts() {}

    /// Whether a form says no table, so that there may be several to choose from.
    public static boolean areSeveral(ReadOptions.Form form) {
        return switch (form) {
            case ReadOptions.Form.Web web -> web.table().isEmpty();
            case ReadOptions.Form.Server server ->
                server.table().isEmpty() && server.query().isEmpty();
            default -> false;
        };
    }

    /// All tables of a page of the web or of a database, each with its first rows. A problem where the shelf may not
    /// read from there, where the server does not answer, and where there is no table; nothing of other forms.
    ///
    /// @param options with all values filled in
    public static Outcome<List<FileParts.Part>> of(Path shelf, ReadOptions options) {
        try {
            return switch (options.form().orElse(new ReadOptions.Form.Delimited())) {
                case ReadOptions.Form.Web form -> ofPage(shelf, options.path(), form);
                case ReadOptions.Form.Server form -> {
                    ServerAddress address = ServerAddress.of(options.path(), form.engine());
                    Consent.want(shelf, address.place());
                    yield Outcome.of(new ServerTable(address, form).parts(options));
                }
                default -> Outcome.of(List.of());
            };
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.FILE_MISSING,
                    options.path(),
                    "It cannot be read: " + e.getMessage() + ".",
                    "Look whether you are connected."));
        }
    }

    private static Outcome<List<FileParts.Part>> ofPage(Path shelf, String address, ReadOptions.Form.Web form)
            throws IOException {
        return FileParts.of(
                new WebTable(address, form).tables(shelf),
                ReadOptions.of(address).withShape(",", "\"", "utf-8", form.heading()),
                number -> new ReadOptions.Form.Web(number, form.heading(), form.seconds(), form.keep()));
    }
}
