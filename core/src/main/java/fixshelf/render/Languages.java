package fixshelf.render;

import java.util.List;
import java.util.Optional;
import java.util.ServiceLoader;

/// All query languages, in the order of the service file.
public final class Languages {
    private Languages() {}

    public static final List<Language> ALL = ServiceLoader.load(Language.class).stream()
            .map(ServiceLoader.Provider::get)
            .toList();

    public static Optional<Language> find(String id) {
        return ALL.stream().filter(l -> l.id().equalsIgnoreCase(id)).findFirst();
    }

    public static List<String> ids() {
        return ALL.stream().map(Language::id).toList();
    }
}
