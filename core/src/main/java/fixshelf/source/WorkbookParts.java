package fixshelf.source;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Enumeration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/// What the parts of a workbook's package say that is not in its cells: its named tables.
record WorkbookParts(List<Table> tables) {
    private static final long MOST_BYTES = 8L << 30;
    private static final long SUSPICIOUS = 200L << 20;
    private static final int MOST_TIMES = 300;
    private static final int MOST_PARTS = 20_000;

    /// A named table: the sheet and the block that it takes, with its heading.
    record Table(String name, String sheet, String block) {}

    Optional<Table> table(String name) {
        return tables.stream().filter(t -> t.name().equalsIgnoreCase(name)).findFirst();
    }

    static WorkbookParts read(Path file) {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            wantUsualSize(file, zip);
            if (zip.getEntry("xl/workbook.xml") == null) {
                throw new ProblemException(Problem.about(
                        Code.FILE_BROKEN,
                        file.toString(),
                        file.getFileName() + " is a zip file, and no workbook of the .xlsx kind.",
                        zip.getEntry("xl/workbook.bin") != null
                                ? "It is a binary workbook: open it and save it as .xlsx."
                                : "Unpack it, and name a file in it."));
            }
            return new WorkbookParts(tables(zip));
        } catch (ZipException | XMLStreamException e) {
            throw WorkbookRecords.broken(file);
        } catch (IOException e) {
            throw WorkbookRecords.broken(file);
        }
    }

    /// A package that unpacks to very much more than it is, is no workbook that anybody wrote.
    private static void wantUsualSize(Path file, ZipFile zip) {
        long packed = 0;
        long unpacked = 0;
        int count = 0;
        for (Enumeration<? extends ZipEntry> all = zip.entries(); all.hasMoreElements(); count++) {
            ZipEntry entry = all.nextElement();
            packed += Math.max(0, entry.getCompressedSize());
            unpacked += Math.max(0, entry.getSize());
        }
        boolean bomb = unpacked > SUSPICIOUS && unpacked / Math.max(1, packed) > MOST_TIMES;
        if (bomb || unpacked > MOST_BYTES || count > MOST_PARTS) {
            throw new ProblemException(Problem.about(
                    Code.FILE_BROKEN,
                    file.toString(),
                    file.getFileName() + " would unpack to " + (unpacked >> 20) + " MB out of " + (packed >> 20)
                            + " MB in " + count + " parts; it is not read.",
                    "Look where it comes from. A real workbook can be saved again in parts."));
        }
    }

    private static List<Table> tables(ZipFile zip) throws IOException, XMLStreamException {
        Map<String, String> sheets = new HashMap<>();
        each(zip, "xl/workbook.xml", (name, at) -> {
            if (name.equals("sheet")) {
                sheets.put(
                        at.getAttributeValue(
                                        "http://schemas.openxmlformats.org/officeDocument/2006/relationships", "id")
                                + "",
                        at.getAttributeValue(null, "name"));
            }
        });
        Map<String, String> files = new HashMap<>();
        each(zip, "xl/_rels/workbook.xml.rels", (name, at) -> {
            if (name.equals("Relationship")) {
                files.put(at.getAttributeValue(null, "Id"), at.getAttributeValue(null, "Target"));
            }
        });
        List<Table> tables = new ArrayList<>();
        for (Map.Entry<String, String> sheet : sheets.entrySet()) {
            String target = String.valueOf(files.get(sheet.getKey())).replaceFirst("^/?xl/", "");
            String relations = "xl/" + target.replaceFirst("([^/]*)$", "_rels/$1.rels");
            List<String> parts = new ArrayList<>();
            each(zip, relations, (name, at) -> {
                if (name.equals("Relationship")
                        && String.valueOf(at.getAttributeValue(null, "Type")).endsWith("/table")) {
                    parts.add(at.getAttributeValue(null, "Target").replaceFirst("^(\\.\\./|/xl/)", "xl/"));
                }
            });
            for (String part : parts) {
                each(zip, part, (name, at) -> {
                    if (name.equals("table")) {
                        tables.add(new Table(
                                at.getAttributeValue(null, "displayName"),
                                sheet.getValue(),
                                at.getAttributeValue(null, "ref")));
                    }
                });
            }
        }
        return tables;
    }

    /// Hands over each element of a part; a part that is not there has none.
    private static void each(ZipFile zip, String part, BiConsumer<String, XMLStreamReader> element)
            throws IOException, XMLStreamException {
        ZipEntry entry = zip.getEntry(part);
        if (entry == null) {
            return;
        }
        XMLInputFactory factory = XMLInputFactory.newInstance();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try (InputStream in = zip.getInputStream(entry)) {
            XMLStreamReader reader = factory.createXMLStreamReader(in);
            while (reader.hasNext()) {
                if (reader.next() == XMLStreamConstants.START_ELEMENT) {
                    element.accept(reader.getLocalName(), reader);
                }
            }
            reader.close();
        }
    }
}
