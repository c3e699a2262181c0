package fixshelf.desktop.data;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Place;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.fetch.Consent;
import fixshelf.problem.Problem;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/// The leave that a user gives where a shelf wants to read from, or write to, a place outside of it.
public final class AllowPlace {
    private AllowPlace() {}

    /// Remembers the leave for this user and this shelf, and goes on; empty where nothing was asked for.
    ///
    /// @param failed hears why it cannot be remembered
    public static Optional<Command> command(
            Workbench workbench, List<Consent.Place> places, Runnable goOn, Consumer<String> failed) {
        if (places.isEmpty()) {
            return Optional.empty();
        }
        String title =
                places.size() == 1 ? "Allow " + places.getFirst().shown() : "Allow these " + places.size() + " places";
        return Optional.of(Command.of(title, "", () -> workbench
                .background()
                .ask(Request.now("allow", "remembering what is allowed"), () -> keep(workbench, places), wrong -> {
                    wrong.ifPresent(failed);
                    if (wrong.isEmpty()) {
                        goOn.run();
                    }
                })));
    }

    /// What a shelf asks for, in words; what else there is to say of the problems where it asks for
    /// less than two places.
    public static String words(List<Problem> problems) {
        List<Consent.Place> places = Consent.askedBy(problems);
        return places.size() < 2
                ? Ui.words(problems.getFirst())
                : "This shelf wants to use " + places.size() + " places that you have not allowed: "
                        + Ui.joined(places.stream().map(Consent.Place::shown).toList())
                        + ". Allow them on the left if you trust it: that is remembered for you, and for this shelf only.";
    }

    private static Optional<String> keep(Workbench workbench, List<Consent.Place> places) {
        try {
            for (Consent.Place place : places) {
                Consent.keep(workbench.shelf().root(), place);
            }
            return Optional.empty();
        } catch (IOException e) {
            return Optional.of("It cannot be remembered: " + e.getMessage() + ".");
        }
    }
}
