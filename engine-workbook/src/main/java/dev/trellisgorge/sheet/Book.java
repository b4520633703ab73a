package dev.trellisgorge.sheet;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A workbook: its sheets in order, names of cells, and what programs list it by. Used by one thread. */
public final class Book {
    private final String title;
    private final String author;
    private final Optional<LocalDate> date;
    private final List<Sheet> sheets = new ArrayList<>();
    private final Map<String, String> names = new LinkedHashMap<>();
    private int shown;

    /** @param title empty where there is none */
    public Book(String title, String author, Optional<LocalDate> date) {
        this.title = title;
        this.author = author;
        this.date = date;
    }

    public String title() {
        return title;
    }

    public String author() {
        return author;
    }

    public Optional<LocalDate> date() {
        return date;
    }

    /** A new sheet behind the others. */
    public Sheet sheet(String name) {
        Sheet sheet = new Sheet(name);
        sheets.add(sheet);
        return sheet;
    }

    public List<Sheet> sheets() {
        return Collections.unmodifiableList(sheets);
    }

    /** Which of its sheets is seen when it is opened, from 0: the first, unless another is said. */
    public int shown() {
        return shown;
    }

    public void show(int sheet) {
        shown = sheet;
    }

    /** Gives cells a name; {@code cells} is a reference with its sheet. */
    public void name(String name, String cells) {
        names.put(name, cells);
    }

    /** The cells that have a name, in the order in which they got it. */
    public Map<String, String> names() {
        return Collections.unmodifiableMap(names);
    }
}
