package fixshelf.source;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/// Workbooks put together part by part, so that cells can hold what no library writes.
public final class Packages {
    private static final String HEAD = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>";
    private static final String MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private static final String RELS = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";

    private Packages() {}

    /// A workbook of sheets, each given by the XML of its rows. Style 1 is a day, 2 a moment, 3 a time, 4 a colour and
    /// quotes around letters that are no day.
    public static byte[] workbook(Map<String, String> sheets, Map<String, String> more) throws IOException {
        Map<String, String> parts = new LinkedHashMap<>();
        StringBuilder names = new StringBuilder();
        StringBuilder rels = new StringBuilder();
        int n = 0;
        for (Map.Entry<String, String> sheet : sheets.entrySet()) {
            n++;
            names.append("<sheet name=\"" + sheet.getKey() + "\" sheetId=\"" + n + "\" r:id=\"rId" + n + "\"/>");
            rels.append("<Relationship Id=\"rId" + n + "\" Type=\"" + RELS + "/worksheet\" Target=\"worksheets/sheet"
                    + n + ".xml\"/>");
            parts.put(
                    "xl/worksheets/sheet" + n + ".xml",
                    "<worksheet xmlns=\"" + MAIN + "\"><sheetData>" + sheet.getValue() + "</sheetData></worksheet>");
        }
        String package_ = "http://schemas.openxmlformats.org/package/2006/";
        String kind = "application/vnd.openxmlformats-officedocument.spreadsheetml.";
        StringBuilder kinds = new StringBuilder();
        for (int i = 1; i <= n; i++) {
            kinds.append("<Override PartName=\"/xl/worksheets/sheet" + i + ".xml\" ContentType=\"" + kind
                    + "worksheet+xml\"/>");
        }
        parts.put(
                "[Content_Types].xml",
                "<Types xmlns=\"" + package_ + "content-types\"><Default Extension=\"xml\""
                        + " ContentType=\"application/xml\"/><Override PartName=\"/xl/workbook.xml\" ContentType=\""
                        + kind
                        + "sheet.main+xml\"/><Override PartName=\"/xl/styles.xml\" ContentType=\"" + kind
                        + "styles+xml\"/>"
                        + kinds + "</Types>");
        parts.put(
                "_rels/.rels",
                "<Relationships xmlns=\"" + package_ + "relationships\"><Relationship Id=\"rId1\" Type=\"" + RELS
                        + "/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>");
        parts.put(
                "xl/workbook.xml",
                "<workbook xmlns=\"" + MAIN + "\" xmlns:r=\"" + RELS + "\"><sheets>" + names + "</sheets></workbook>");
        parts.put(
                "xl/_rels/workbook.xml.rels",
                "<Relationships xmlns=\"" + package_ + "relationships\">" + rels + "<Relationship Id=\"rIdS\" Type=\""
                        + RELS + "/styles\" Target=\"styles.xml\"/></Relationships>");
        parts.put(
                "xl/styles.xml",
                "<styleSheet xmlns=\"" + MAIN + "\"><numFmts count=\"3\">"
                        + "<numFmt numFmtId=\"164\" formatCode=\"dd/mm/yyyy\\ hh:mm\"/><numFmt numFmtId=\"165\" formatCode=\"[h]:mm:ss\"/>"
                        + "<numFmt numFmtId=\"166\" formatCode=\"[Red]&quot;days&quot;\\ 0.00\"/></numFmts><cellXfs count=\"5\">"
                        + "<xf numFmtId=\"0\"/><xf numFmtId=\"14\"/><xf numFmtId=\"164\"/><xf numFmtId=\"165\"/><xf numFmtId=\"166\"/>"
                        + "</cellXfs></styleSheet>");
        parts.putAll(more);
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (Map.Entry<String, String> part : parts.entrySet()) {
                zip.putNextEntry(new ZipEntry(part.getKey()));
                zip.write((HEAD + part.getValue()).getBytes(StandardCharsets.UTF_8));
            }
        }
        return bytes.toByteArray();
    }

    /// A row of cells, each `A text`, `A =number`, `A =number@style`, `A !error`, `A ?true` or `A ~` for a formula that
    /// was never worked out; the letter is the column.
    public static String row(int number, String... cells) {
        StringBuilder row = new StringBuilder("<row r=\"" + number + "\">");
        for (String cell : cells) {
            String at = cell.split(" ", 2)[0] + number;
            String what = cell.split(" ", 2)[1];
            row.append(
                    switch (what.isEmpty() ? ' ' : what.charAt(0)) {
                        case '=' -> {
                            String[] value = what.substring(1).split("@");
                            String style = value.length > 1 ? " s=\"" + value[1] + "\"" : "";
                            yield "<c r=\"" + at + "\"" + style + "><v>" + value[0] + "</v></c>";
                        }
                        case '!' -> "<c r=\"" + at + "\" t=\"e\"><v>" + what.substring(1) + "</v></c>";
                        case '?' -> "<c r=\"" + at + "\" t=\"b\"><v>" + (what.equals("?true") ? 1 : 0) + "</v></c>";
                        case '~' -> "<c r=\"" + at + "\"><f>A1+1</f></c>";
                        default ->
                            "<c r=\"" + at + "\" t=\"inlineStr\"><is><t xml:space=\"preserve\">" + what
                                    + "</t></is></c>";
                    });
        }
        return row.append("</row>").toString();
    }
}
