package fixshelf.render.sql;

/// The parts of a separated text in MariaDB, which has no lists: they become a list in JSON, and that a table.
final class MariaDbParts {
    private final SqlLanguage language;

    private MariaDbParts(SqlLanguage language) {
        this.language = language;
    }

    static void addTo(SqlLanguage language) {
        MariaDbParts parts = new MariaDbParts(language);
        SqlParts.addTo(language, parts::sorted, parts::unique);
    }

    private Sql sorted(String text, String separator) {
        return parts(text, separator, "ORDER BY CAST(a.v AS BINARY)", "");
    }

    /// A part is left where none before it is the same: no inner query of another may use a column from outside.
    private Sql unique(String text, String separator) {
        return parts(
                text,
                separator,
                "ORDER BY a.o",
                "\n  LEFT JOIN " + jsonTable(text, separator, "b")
                        + " ON b.o < a.o AND CAST(b.v AS BINARY) = CAST(a.v AS BINARY)\n  WHERE b.o IS NULL");
    }

    private Sql parts(String text, String separator, String order, String others) {
        return Sql.caseWhen(
                Sql.atom(text + " IS NOT NULL"),
                // As new text, so that the order by which parts were compared goes no further.
                Sql.atom("convert(coalesce((SELECT group_concat(a.v " + order + " SEPARATOR " + language.text(separator)
                        + ")\n  FROM " + jsonTable(text, separator, "a") + others + "), '') USING utf8mb4)"));
    }

    private String jsonTable(String text, String separator, String name) {
        return "json_table(concat('[', " + SqlParts.asJson(language, text, separator)
                + ", ']'), '$[*]' COLUMNS(o FOR ORDINALITY, v LONGTEXT PATH '$')) AS " + name;
    }
}
