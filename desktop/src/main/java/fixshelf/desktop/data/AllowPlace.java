package fixshelf.desktop.data;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Place;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.fetch.Consent;
import java.io.IOException;
import java.util.Optional;
import java.util.function.Consumer;

/// The leave that a user gives where a shelf wants to read from, or write to, a place outside of it.
public final class AllowPlace {
    private AllowPlace() {}

    /// Remembers the leave for this user and this shelf, and goes on.
    ///
    /// @param failed hears why it cannot be remembered
    public static Command command(Workbench workbench, Consent.Place place, Runnable goOn, Consumer<String> failed) {
        return Command.of("Allow " + place.shown(), "", () -> workbench
                .background()
                .ask(Request.now("allow", "remembering what is allowed"), () -> keep(workbench, place), wrong -> {
                    wrong.ifPresent(failed);
                    if (wrong.isEmpty()) {
                        goOn.run();
                    }
                }));
    }

    private static Optional<String> keep(Workbench workbench, Consent.Place place) {
        try {
            Consent.keep(workbench.shelf().root(), place);
            return Optional.empty();
        } catch (IOException e) {
            return Optional.of("It cannot be remembered: " + e.getMessage() + ".");
        }
    }
}
