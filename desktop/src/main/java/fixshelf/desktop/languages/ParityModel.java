package fixshelf.desktop.languages;

import fixshelf.check.Parity;
import fixshelf.check.ParityResult;
import fixshelf.check.Subject;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.engine.Stop;
import fixshelf.render.Language;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What is known of the parity of each fix in each language. A result counts as long as the fix stays as it was.
final class ParityModel {
    private record Place(String fix, String language) {}

    private final Background background;
    private final Map<Place, ParityResult> results = new HashMap<>();

    ParityModel(Background background) {
        this.background = background;
    }

    /// The result for a fix as it is now, if it was checked.
    Optional<ParityResult> result(Shelf shelf, FixPage page, Language language) {
        return Optional.ofNullable(results.get(new Place(page.name(), language.id())))
                .filter(r -> shelf.definition(page)
                        .value()
                        .map(r.subject().fix()::equals)
                        .orElse(false));
    }

    /// Checks these fixes in every language, one lane a language; `heard` is told whenever results are in.
    void check(Shelf shelf, List<FixPage> pages, int values, Runnable heard) {
        List<Subject> subjects = Subject.ofFixes(shelf, pages);
        for (FixEngine engine : FixEngines.ALL.stream().skip(1).toList()) {
            String title = engine.language().title();
            background.ask(
                    new Request("language " + engine.language().id(), "checking parity in " + title, 120),
                    () -> Parity.check(FixEngines.ALL.getFirst(), List.of(engine), subjects, settings(values, heard)),
                    found -> {
                        found.forEach(this::put);
                        heard.run();
                    });
        }
    }

    private Parity.Settings settings(int values, Runnable heard) {
        return new Parity.Settings(
                values,
                Parity.Settings.SEED,
                Stop.currentOrNew(),
                r -> background.onScreen(() -> {
                    put(r);
                    heard.run();
                }));
    }

    private void put(ParityResult result) {
        results.put(new Place(result.subject().name(), result.language().id()), result);
    }
}
