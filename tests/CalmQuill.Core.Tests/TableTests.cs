using CalmQuill.Core.Changing;
using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;
using CsCheck;
using MathNet.Numerics.Statistics;

namespace CalmQuill.Core.Tests;

/// <summary>Tables: rows, columns and cells, which several people change at once.</summary>
public sealed class TableTests : OnPage
{
    [Fact]
    public void What_is_written_in_cells_stands_in_their_rows_and_columns()
    {
        var table = Lay(3, 2);
        Assert.Equal("\t\n\t\n\t", Words(table));
        Write(Tobias, table, 0, 0, "length");
        Write(Ines, table, 0, 1, "time");
        Write(Tobias, table, 2, 1, "2.01");
        Assert.Equal("length\ttime\n\t\n\t2.01", Words(table));
        Write(Tobias, table, 0, 0, "l");
        Assert.Equal("l\ttime\n\t\n\t2.01", Words(table));
        UndoAll(Tobias);
        Assert.Equal("length\ttime\n\t\n\t2.01", Words(table));
    }

    [Fact]
    public void Rows_and_columns_are_added_moved_and_removed_each_as_one_step()
    {
        var table = Numbered(3, 3);
        Edit(Ines, table, edit => Assert.Null(edit.AddRows(1, 2)));
        Assert.Equal("00\t01\t02\n\t\t\n\t\t\n10\t11\t12\n20\t21\t22", Words(table));
        UndoAll(Ines);
        Edit(Ines, table, edit => Assert.Null(edit.AddColumns(3, 1)));
        Assert.Equal("00\t01\t02\t\n10\t11\t12\t\n20\t21\t22\t", Words(table));
        UndoAll(Ines);
        Edit(Ines, table, edit => edit.MoveRow(2, 0));
        Edit(Ines, table, edit => edit.MoveColumn(0, 2));
        Assert.Equal("21\t22\t20\n01\t02\t00\n11\t12\t10", Words(table));
        Edit(Ines, table, edit => edit.RemoveColumn(1));
        Edit(Ines, table, edit => edit.RemoveRow(0));
        Assert.Equal("01\t00\n11\t10", Words(table));
        for (var step = 0; step < 4; step++)
            UndoAll(Ines);
        Assert.Equal("00\t01\t02\n10\t11\t12\n20\t21\t22", Words(table));
    }

    [Fact]
    public void What_one_writes_into_a_row_that_another_removes_meanwhile_is_not_lost()
    {
        var table = Numbered(3, 2);
        var removed = Change(table, edit => edit.RemoveRow(1));
        var written = Change(table, edit => edit.Write(NameAt(table, 1, 1), "found"));
        Do(Tobias, new Change.TextTyped(table, written));
        Do(Ines, new Change.TextTyped(table, removed));
        Assert.Equal("00\t01\n\tfound\n20\t21", Words(table));
        // And the row of which nothing is left is gone.
        Edit(Ines, table, edit => edit.RemoveRow(1));
        Assert.Equal("00\t01\n20\t21", Words(table));
    }

    [Fact]
    public void A_cell_whose_row_is_gone_is_no_place_to_type_in_and_no_other_takes_its_place()
    {
        var table = Numbered(2, 2);
        var name = NameAt(table, 1, 1).ToString();
        var content = (TableContent)Item(table).Content;
        Assert.Equal(name, content.RoomBy(name)!.Name);
        Edit(Ines, table, edit => edit.RemoveRow(1));
        Assert.Null(content.RoomBy(name));
        Assert.Equal(NameAt(table, 0, 0).ToString(), content.RoomBy("")!.Name);
        UndoAll(Ines);
        Assert.NotNull(content.RoomBy(name));
    }

    [Fact]
    public void A_row_and_a_column_that_two_add_at_once_meet_in_a_cell_that_can_be_written_in()
    {
        var table = Numbered(2, 2);
        var row = Change(table, edit => edit.AddRows(2, 1));
        var column = Change(table, edit => edit.AddColumns(1, 1));
        Do(Ines, new Change.TextTyped(table, row));
        Do(Tobias, new Change.TextTyped(table, column));
        Write(Tobias, table, 2, 1, "here");
        Assert.Equal("00\t\t01\n10\t\t11\n\there\t", Words(table));
    }

    [Fact]
    public void Two_that_begin_to_write_in_one_empty_cell_both_keep_their_words()
    {
        var table = Lay(2, 2);
        var (one, other) = (
            Change(table, edit => edit.Write(NameAt(table, 0, 1), "one")),
            Change(table, edit => edit.Write(NameAt(table, 0, 1), "other"))
        );
        Do(Ines, new Change.TextTyped(table, one));
        Do(Tobias, new Change.TextTyped(table, other));
        Assert.Equal(["one", "other"], Layout(table).Text[0, 1].Text.Split('\n').Order());
        Assert.Equal(2, Layout(table).Text.Rows.Count);
    }

    [Fact]
    public void Cells_that_two_join_so_that_they_overlap_are_joined_once_and_show_all_that_is_in_them()
    {
        var table = Numbered(3, 3);
        var one = Change(table, edit => edit.Join(Layout(table).Text[0, 0], 1, 1));
        var other = Change(table, edit => edit.Join(Layout(table).Text[1, 1], 2, 2));
        Do(Ines, new Change.TextTyped(table, one));
        Do(Tobias, new Change.TextTyped(table, other));
        var text = Layout(table).Text;
        Assert.Equal(text[0, 0], text[1, 1]);
        Assert.Equal("00\n01\n10\n11", text[0, 0].Text);
        Assert.False(text[2, 2].IsJoined);
        Assert.Equal("22", text[2, 2].Text);
        // Parted again, each has its own.
        Edit(Ines, table, edit => edit.Part(text[0, 0]));
        Assert.Equal("00", Layout(table).Text[0, 0].Text);
        Assert.Equal("11\n12\n21\n22", Layout(table).Text[1, 1].Text);
    }

    [Fact]
    public void A_row_within_joined_cells_lengthens_them_and_without_their_last_row_they_end_before_it()
    {
        var table = Numbered(4, 2);
        Edit(Ines, table, edit => edit.Join(Layout(table).Text[0, 0], 2, 0));
        Edit(Ines, table, edit => edit.AddRows(1, 1));
        Assert.Equal((0, 3), (Layout(table).Text[0, 0].Row, Layout(table).Text[0, 0].LastRow));
        Edit(Ines, table, edit => edit.RemoveRow(3));
        Assert.Equal((0, 2), (Layout(table).Text[0, 0].Row, Layout(table).Text[0, 0].LastRow));
        Assert.Equal("30", Layout(table).Text[3, 0].Text);
    }

    [Fact]
    public void Whatever_three_people_do_to_a_table_at_once_all_see_the_same_and_no_word_is_lost_that_nobody_took_out() =>
        Gen.Select(Gen.Select(Gen.Int[0, 2], Gen.Int[0, 9], Gen.Int[0, 999], Gen.Int[0, 999]).Array[10, 60], Gen.Int)
            .Sample(
                (steps, seed) =>
                {
                    var people = Enumerable.Range(0, 3).Select(who => new Replica((ulong)who + 1, Generate.People[who])).ToArray();
                    var pages = people.Select(_ => new PageDocument()).ToArray();
                    var all = new List<Operation>
                    {
                        people[0]
                            .Make(
                                new Change.ThingAdded(
                                    ThingKind.Table,
                                    Transform.Shift(0, 0),
                                    9_000,
                                    2_000,
                                    TableEdit.New([0, 0, 0], [0, 0, 0]),
                                    []
                                ),
                                1
                            ),
                    };
                    var table = all[0].Id;
                    foreach (var page in pages)
                        page.Apply(all[0]);
                    var had = new int[] { 1, 1, 1 };
                    var (typed, taken) = (new HashSet<string>(), new HashSet<string>());
                    foreach (var (who, what, a, b) in steps)
                    {
                        if (what == 9)
                        {
                            foreach (var operation in all.Skip(had[who]))
                                pages[who].Apply(operation);
                            had[who] = all.Count;
                            continue;
                        }

                        var content = (TableContent)pages[who].Find(table)!.Content;
                        var text = content.Layout.Text;
                        if (text.IsEmpty)
                            continue;
                        var (row, column) = (a % text.Rows.Count, b % text.Columns.Count);
                        var edit = new TableEdit(content.Typed, people[who].Id);
                        switch (what)
                        {
                            case 0:
                                edit.AddRows(a % (text.Rows.Count + 1), 1 + b % 2);
                                break;
                            case 1:
                                edit.AddColumns(b % (text.Columns.Count + 1), 1);
                                break;
                            case 2:
                                Take(text.Cells.Where(cell => cell.Paragraphs.Count > 0 && Rows(text, cell).Contains(row)));
                                edit.RemoveRow(row);
                                break;
                            case 3:
                                Take(
                                    text.Cells.Where(cell =>
                                        cell.Paragraphs.Count > 0 && cell.Column <= column && column <= cell.LastColumn
                                    )
                                );
                                edit.RemoveColumn(column);
                                break;
                            case 4:
                                edit.Join(
                                    text[row, column],
                                    Math.Min(row + a % 3, text.Rows.Count - 1),
                                    Math.Min(column + b % 3, text.Columns.Count - 1)
                                );
                                break;
                            case 5:
                                edit.Part(text[row, column]);
                                break;
                            case 6:
                                edit.Sort(column, a % 2 == 0, b % 2);
                                break;
                            default:
                                var word = $"<{typed.Count}>";
                                typed.Add(word);
                                Take([text[row, column]]);
                                edit.Write(text[row, column].Name, word);
                                break;
                        }

                        if (edit.Change.IsEmpty)
                            continue;
                        Assert.Null(WritingRules.Check(edit.Change));
                        var made = people[who].Make(new Change.TextTyped(table, edit.Change), all.Count * 50 + b);
                        pages[who].Apply(made);
                        all.Add(made);
                    }

                    var random = new Random(seed);
                    foreach (var page in pages)
                    {
                        foreach (var operation in all.OrderBy(_ => random.Next()))
                            page.Apply(operation);
                    }

                    Assert.Equal(pages[0].EncodeState(), pages[1].EncodeState());
                    Assert.Equal(pages[0].EncodeState(), pages[2].EncodeState());
                    var shown = ((TableContent)pages[0].Find(table)!.Content).Layout;
                    Assert.Equal(shown.Text.Words, ((TableContent)pages[1].Find(table)!.Content).Layout.Text.Words);
                    // Two who write over one word at once have theirs side by side.
                    Assert.All(typed.Except(taken), word => Assert.Contains(word, shown.Text.Words, StringComparison.Ordinal));
                    // Each place of the grid is one cell's, and boxes do not overlap.
                    Assert.Equal(
                        (long)shown.Width * shown.Down[^1],
                        shown.Text.Cells.Select(shown.BoxOf).Sum(box => (long)(box.Right - box.Left) * (box.Bottom - box.Top))
                    );

                    void Take(IEnumerable<TableCell> cells) =>
                        taken.UnionWith(typed.Where(word => cells.Any(cell => cell.Text.Contains(word, StringComparison.Ordinal))));
                    static IEnumerable<int> Rows(TableText _, TableCell cell) => Enumerable.Range(cell.Row, cell.LastRow - cell.Row + 1);
                },
                iter: 300
            );

    [Fact]
    public void Rows_are_as_high_as_their_letters_need_and_columns_as_wide_as_they_were_made()
    {
        var table = Lay(2, 2);
        Assert.Equal([0, 3_000, 6_000], Layout(table).Across);
        Assert.Equal([0, TableLayout.UsualRow, 2 * TableLayout.UsualRow], Layout(table).Down);
        Write(Ines, table, 0, 0, "many words in a narrow cell take several lines of it");
        var high = Layout(table).Down[1];
        Assert.InRange(high, 3 * TableLayout.UsualRow / 2, 6 * TableLayout.UsualRow);
        Edit(Ines, table, edit => edit.SetWidth(0, 12_000));
        Assert.Equal([0, 12_000, 15_000], Layout(table).Across);
        Assert.Equal(TableLayout.UsualRow, Layout(table).Down[1]);
        Edit(Ines, table, edit => edit.SetHeight(1, 2_500));
        Assert.Equal(TableLayout.UsualRow + 2_500, Layout(table).Down[2]);
        Assert.Equal((15_000, TableLayout.UsualRow + 2_500), (Item(table).Bounds.Right, Item(table).Bounds.Bottom));
    }

    [Fact]
    public void Numbers_stand_at_the_right_edge_unless_something_else_is_said_and_the_heading_is_bold()
    {
        var table = Lay(3, 2);
        Do(Ines, new Change.ItemsSet([table], [new ItemValue(ItemField.Shows, TableLayout.Header)]));
        Write(Ines, table, 0, 0, "wheel");
        Write(Ines, table, 1, 0, "12");
        Write(Ines, table, 2, 0, "105");
        Write(Ines, table, 1, 1, "word");
        Assert.Equal(("right", "right", ""), (AlignOf(1, 0), AlignOf(2, 0), AlignOf(1, 1)));
        Assert.True(Layout(table).SetOf(Layout(table).Text[0, 0]).Paragraphs[0].Paragraph.Lines[0].Pieces[0].Style.Bold);
        Assert.False(Layout(table).SetOf(Layout(table).Text[1, 0]).Paragraphs[0].Paragraph.Lines[0].Pieces[0].Style.Bold);
        Write(Ines, table, 2, 0, "many");
        Assert.Equal("", AlignOf(1, 0));

        string AlignOf(int row, int column) => Layout(table).SetOf(Layout(table).Text[row, column]).Paragraphs[0].Paragraph.Style.Align;
    }

    [Fact]
    public void Under_a_column_stands_what_its_numbers_come_to_and_follows_them()
    {
        var table = Lay(4, 1);
        Do(Ines, new Change.ItemsSet([table], [new ItemValue(ItemField.Shows, TableLayout.Header)]));
        foreach (var (row, words) in new[] { (0, "7 s"), (1, "1,5 s"), (2, "−0.25 s"), (3, "open") })
            Write(Ines, table, row, 0, words);
        Edit(Ines, table, edit => edit.SetTotal(0, "sum"));
        // The heading is not among them.
        Assert.Equal("Σ 1.25 s", Layout(table).Totals[0]);
        Assert.True(Layout(table).Height > Layout(table).Down[^1]);
        Write(Tobias, table, 3, 0, "2 s");
        Assert.Equal("Σ 3.25 s", Layout(table).Totals[0]);
        Edit(Ines, table, edit => edit.SetTotal(0, "mean"));
        Assert.Equal("Ø 1.0833 s", Layout(table).Totals[0]);
        Edit(Ines, table, edit => edit.SetTotal(0, "count"));
        Assert.Equal("n = 3", Layout(table).Totals[0]);
        Edit(Ines, table, edit => edit.SetTotal(0, ""));
        Assert.Equal(Layout(table).Down[^1], Layout(table).Height);
    }

    [Theory]
    [InlineData("12", 12, 0, "")]
    [InlineData(" −0.50 ", -0.5, 2, "")]
    [InlineData("1,25", 1.25, 2, "")]
    [InlineData("+3 kg", 3, 0, "kg")]
    [InlineData("1.234.567,8", 1234567.8, 1, "")]
    [InlineData("1,234,567", 1234567, 0, "")]
    [InlineData("3 400 m", 3400, 0, "m")]
    [InlineData("12'500.05", 12500.05, 2, "")]
    [InlineData("20 %", 20, 0, "%")]
    [InlineData(".5", 0.5, 1, "")]
    public void Numbers_are_read_as_people_write_them(string text, double value, int decimals, string unit) =>
        Assert.Equal(new TableNumber((decimal)value, decimals, unit), TableNumber.Read(text));

    [Theory]
    [InlineData("")]
    [InlineData("-")]
    [InlineData("wheel")]
    [InlineData("2 of 3")]
    [InlineData("10:30")]
    [InlineData("1 2 3")]
    [InlineData("99999999999999999999999999999999999999999999")]
    public void What_is_no_number_is_none(string text) => Assert.Null(TableNumber.Read(text));

    /// <summary>Against MathNet.Numerics 5.</summary>
    [Fact]
    public void Sums_and_means_are_those_of_a_library_of_numerics() =>
        Gen.Int[-99_999, 99_999]
            .Array[1, 40]
            .Sample(hundredths =>
            {
                var cells = hundredths
                    .Select(one => (one / 100m).ToString("0.00", System.Globalization.CultureInfo.InvariantCulture))
                    .ToList();
                var values = hundredths.Select(one => one / 100.0).ToArray();
                Assert.Equal(values.Sum(), (double)TableNumber.Read(TableNumber.Total("sum", cells)[2..])!.Value.Value, 1e-6);
                Assert.Equal(values.Mean(), (double)TableNumber.Read(TableNumber.Total("mean", cells)[2..])!.Value.Value, 5.1e-5);
            });

    [Fact]
    public void Sorting_puts_numbers_by_size_before_words_and_what_is_empty_last_and_keeps_what_is_alike_in_its_order()
    {
        var table = Lay(7, 2);
        string[] words = ["name", "10", "anchor", "9,5", "", "Balance", "10"];
        for (var row = 0; row < words.Length; row++)
        {
            Write(Ines, table, row, 0, words[row]);
            Write(Ines, table, row, 1, $"{row}");
        }

        Edit(Ines, table, edit => edit.Sort(0, false, 1));
        Assert.Equal("name\t0\n9,5\t3\n10\t1\n10\t6\nanchor\t2\nBalance\t5\n\t4", Words(table));
        Edit(Tobias, table, edit => edit.Sort(0, true, 1));
        Assert.Equal("name\t0\nBalance\t5\nanchor\t2\n10\t1\n10\t6\n9,5\t3\n\t4", Words(table));
        UndoAll(Tobias);
        UndoAll(Ines);
        Assert.Equal("name\t0\n10\t1\nanchor\t2\n9,5\t3\n\t4\nBalance\t5\n10\t6", Words(table));
    }

    [Fact]
    public void What_comes_from_a_spreadsheet_fills_cells_from_one_on_and_adds_those_that_are_wanting()
    {
        var table = Numbered(2, 2);
        Edit(Ines, table, edit => Assert.Null(edit.Paste(1, 1, TableSheet.Read("a\tb\r\n\"c \"\"d\"\"\ne\"\tf\r\n"))));
        Assert.Equal("00\t01\t\n10\ta\tb\n\tc \"d\"\u2028e\tf", Words(table));
        UndoAll(Ines);
        Assert.Equal("00\t01\n10\t11", Words(table));
    }

    [Fact]
    public void Cells_come_back_from_a_spreadsheets_text_as_they_were() =>
        Gen.Int[0, Odd.Length - 1]
            .Select(which => Odd[which])
            .Array[1, 4]
            .Array[1, 5]
            .Sample(rows =>
            {
                var read = TableSheet.Read(TableSheet.Write(rows) + "\n");
                Assert.Equal(rows.Select(row => string.Join('|', row)), read.Select(row => string.Join('|', row)));
            });

    [Fact]
    public void A_column_can_be_as_wide_as_what_is_in_it()
    {
        var table = Lay(3, 2);
        Write(Ines, table, 0, 0, "a heading of some words");
        Write(Ines, table, 1, 0, "12");
        Assert.True(Layout(table).Down[1] > TableLayout.UsualRow);
        Edit(Ines, table, edit => edit.SetWidth(0, Layout(table).WidthFor(0)));
        // On one line, and no wider than that takes.
        Assert.Equal(TableLayout.UsualRow, Layout(table).Down[1]);
        var wide = Layout(table).Across[1];
        Edit(Ines, table, edit => edit.SetWidth(0, wide - 40));
        Assert.True(Layout(table).Down[1] > TableLayout.UsualRow);
        Assert.Equal(TableLimits.LeastExtent, Layout(table).WidthFor(1));
    }

    [Fact]
    public void For_web_pages_cells_are_written_so_that_nothing_in_them_is_taken_for_more_than_letters() =>
        Assert.Equal(
            "<table><tr><td>&lt;b&gt;&amp;&quot;</td><td>a<br>b</td></tr></table>",
            TableSheet.WriteHtml([
                ["<b>&\"", "a\nb"],
            ])
        );

    [Fact]
    public void A_line_that_says_nothing_of_its_place_can_have_others_beside_it()
    {
        var table = Do(
            Ines,
            new Change.ThingAdded(
                ThingKind.Table,
                Transform.Shift(0, 0),
                6_000,
                2_000,
                new Passage("\n\n", [new PassageFormat(0, 1, Trait.Cell, "r:1"), new PassageFormat(1, 2, Trait.Cell, "c:1")]),
                []
            )
        ).Id;
        Edit(Ines, table, edit => edit.AddRows(0, 1));
        Edit(Ines, table, edit => edit.AddRows(2, 1));
        Edit(Ines, table, edit => edit.AddColumns(1, 2));
        Assert.Equal("\t\t\n\t\t\n\t\t", Words(table));
    }

    [Fact]
    public void A_table_that_would_be_too_large_is_refused_with_nothing_of_it_done()
    {
        Assert.NotNull(TableLimits.Check(1_000, 1));
        Assert.NotNull(TableLimits.Check(100, 21));
        Assert.Null(TableLimits.Check(100, 20));
        var table = Lay(2, 2);
        var edit = new TableEdit(Item(table).Typed, 1);
        Assert.NotNull(edit.Paste(0, 0, [.. Enumerable.Repeat(Enumerable.Repeat("x", 100).ToList(), 100)]));
        Assert.NotNull(edit.AddRows(0, 500));
        Assert.NotNull(edit.AddColumns(0, 50));
        Assert.True(edit.Change.IsEmpty);
        // What comes so all the same, from elsewhere, is shown as far as a table reaches, and its words in the first cell.
        var huge = Do(
            Ines,
            new Change.ThingAdded(ThingKind.Table, Transform.Shift(0, 0), 9_000, 2_000, TableEdit.New(new int[60], new int[500]), [])
        ).Id;
        Do(Ines, new Change.TextTyped(huge, Change(huge, over => over.Write(new TableName("499", "60"), "beyond"))));
        Assert.Equal((TableLimits.MostRows, TableLimits.MostColumns), (Layout(huge).Text.Rows.Count, Layout(huge).Text.Columns.Count));
        Assert.Equal("beyond", Layout(huge).Text[0, 0].Text);
    }

    [Fact]
    public void Several_cells_are_taken_as_a_range_that_cuts_through_none_that_were_joined()
    {
        var table = Numbered(4, 4);
        var text = Layout(table).Text;
        Assert.Equal(new CellRange(1, 1, 2, 3), text.Between(text[2, 1], text[1, 3]));
        Edit(Ines, table, edit => edit.Join(text[0, 2], 1, 2));
        Edit(Ines, table, edit => edit.Join(text[3, 2], 3, 3));
        text = Layout(table).Text;
        // The first joined one reaches up; what that takes in is in it once.
        var range = text.Between(text[1, 1], text[2, 2]);
        Assert.Equal(new CellRange(0, 1, 2, 2), range);
        Assert.Equal(5, text.Within(range).Count);
        Assert.Equal(["01 02,12", "11 ", "21 22"], text.RowsOf(range).Select(row => string.Join(' ', row).Replace('\n', ',')));
        // However they were joined, the range holds whole cells, and both ends.
        var pick = Gen.Int[0, 4];
        Gen.Select(Gen.Select(pick, pick, pick, pick).List[0, 4], Gen.Select(pick, pick, pick, pick))
            .Sample(
                (joins, ends) =>
                {
                    var typed = new TypedText();
                    OpId made = new(1, 1);
                    typed.Take(made, new Stamp(Hlc.At(1), made), TableEdit.New(new int[5], new int[5]).Whole(made));
                    for (var i = 0; i < joins.Count; i++)
                    {
                        var (row, column, last, lastColumn) = joins[i];
                        var edit = new TableEdit(typed, 1);
                        edit.Join(TableText.Of(typed.Paragraphs())[row, column], last, lastColumn);
                        OpId id = new(1, (ulong)(2 + i));
                        typed.Take(id, new Stamp(Hlc.At(2 + i), id), edit.Change);
                    }

                    var grid = TableText.Of(typed.Paragraphs());
                    var (one, other) = (grid[ends.Item1, ends.Item2], grid[ends.Item3, ends.Item4]);
                    var all = grid.Between(one, other);
                    Assert.Equal(all, grid.Between(other, one));
                    Assert.Contains(one, grid.Within(all));
                    Assert.Contains(other, grid.Within(all));
                    Assert.All(
                        grid.Within(all),
                        cell =>
                            Assert.True(
                                cell.Row >= all.Row
                                    && cell.Column >= all.Column
                                    && cell.LastRow <= all.LastRow
                                    && cell.LastColumn <= all.LastColumn
                            )
                    );
                    Assert.Equal(
                        all.Rows * all.Columns,
                        grid.Within(all).Sum(cell => (cell.LastRow - cell.Row + 1) * (cell.LastColumn - cell.Column + 1))
                    );
                },
                iter: 300
            );
    }

    [Fact]
    public void Several_cells_are_emptied_filled_and_made_bold_as_one_step_and_what_another_types_meanwhile_stays()
    {
        var table = Numbered(3, 3);
        Write(Ines, table, 1, 1, "");
        var text = Layout(table).Text;
        var cells = text.Within(new CellRange(0, 0, 1, 1));
        Edit(
            Ines,
            table,
            edit =>
            {
                foreach (var cell in cells)
                {
                    edit.SetLook(cell, Trait.Bold, "1");
                    edit.SetLook(cell, Trait.Align, "right");
                    edit.SetFill(cell, "f3e2a4ff");
                }
            }
        );
        // One that is empty is filled, and what comes into it stands at the right.
        Assert.Equal(
            ["1 right f3e2a4ff", "1 right f3e2a4ff", "1 right f3e2a4ff", " right f3e2a4ff"],
            Layout(table).Text.Within(new CellRange(0, 0, 1, 1)).Select(Said)
        );
        Assert.Equal("  ", Said(Layout(table).Text[0, 2]));
        var emptied = Change(
            table,
            edit =>
            {
                foreach (var cell in Layout(table).Text.Within(new CellRange(0, 0, 1, 1)))
                    edit.Empty(cell);
            }
        );
        var typed = new TextChange([Item(table).Typed.InsertionAt(Layout(table).Text[0, 1].Paragraphs[0].Start + 1, "kept")], [], []);
        Do(Ines, new Change.TextTyped(table, emptied));
        Do(Tobias, new Change.TextTyped(table, typed));
        Assert.Equal("\tkept\t02\n\t\t12\n20\t21\t22", Words(table));
        UndoAll(Ines);
        Assert.Equal("00\t0kept1\t02\n10\t\t12\n20\t21\t22", Words(table));

        static string Said(TableCell cell) =>
            string.Join(
                ' ',
                cell.Paragraphs.SelectMany(paragraph => paragraph.Spans).Select(span => span.Look[Trait.Bold]).FirstOrDefault() ?? "",
                cell.Look[Trait.Align],
                cell.Look[Trait.Fill]
            );
    }

    /// <summary>Whatever is typed into cells, done to rows and columns and taken back: what was kept of a table is never shown in place of what it is.</summary>
    [Fact]
    public void A_table_that_is_worked_out_in_part_is_what_would_be_worked_out_from_nothing() =>
        Gen.Select(Gen.Int[0, 13], Gen.Int[0, 5], Gen.Int[0, 5], Gen.Int[0, 7])
            .List[1, 25]
            .Sample(
                acts =>
                {
                    var (person, page) = (new Replica(7, Guid.NewGuid()), new PageDocument());
                    var first = new Change.ThingAdded(
                        ThingKind.Table,
                        Transform.Shift(0, 0),
                        6_000,
                        2_000,
                        TableEdit.New(
                            [0, 0, 0],
                            [0, 0, 0],
                            edit =>
                                edit.Paste(
                                    0,
                                    0,
                                    [
                                        ["length", "time", ""],
                                        ["1", "2.01", "x"],
                                    ]
                                )
                        ),
                        [new ItemValue(ItemField.Shows, TableLayout.Header)]
                    );
                    var made = new List<Operation> { person.Make(first, 1) };
                    page.Apply(made[0]);
                    var table = made[0].Id;
                    foreach (var (what, a, b, n) in acts)
                    {
                        var content = (TableContent)page.Find(table)!.Content;
                        var (text, typed) = (content.Layout.Text, content.Typed);
                        if (text.IsEmpty)
                            break;
                        var edit = new TableEdit(typed, 7);
                        var cell = text[a % text.Rows.Count, b % text.Columns.Count];
                        var change = what switch
                        {
                            <= 5 when cell.Paragraphs.Count > 0 && cell.Paragraphs[n % cell.Paragraphs.Count] is var paragraph =>
                                new TextChange([typed.InsertionAt(paragraph.Start + n % (paragraph.Length + 1), Letters(what))], [], []),
                            6 when cell.Paragraphs.Count > 0 && cell.Paragraphs[0] is { Length: > 0 } paragraph => new TextChange(
                                [],
                                typed.RemovalsOf(paragraph.Start, 1 + n % paragraph.Length),
                                []
                            ),
                            7 when cell.Paragraphs.Count > 0 && cell.Paragraphs[0] is { Length: > 0 } paragraph => new TextChange(
                                [],
                                [],
                                [typed.FormatOf(paragraph.Start, paragraph.Length, Trait.Underline, n % 2 == 0 ? "1" : "")]
                            ),
                            _ => null,
                        };
                        switch (what)
                        {
                            case 8:
                                edit.Write(cell.Name, $"{a}.{b}");
                                break;
                            case 9:
                                edit.SetFill(cell, n % 2 == 0 ? "f3e2a4ff" : "");
                                break;
                            case 10:
                                edit.Join(cell, Math.Min(cell.LastRow + 1, text.Rows.Count - 1), cell.LastColumn);
                                break;
                            case 11:
                                edit.MoveRow(cell.Row, n % text.Rows.Count);
                                break;
                            case 12:
                                edit.SetTotal(cell.Column, n % 2 == 0 ? "sum" : "");
                                break;
                        }

                        change ??= edit.Change;
                        // The last of them takes something back, or has it count again.
                        if (what == 13 && made.Count > 1)
                            made.Add(person.Make(new Change.EffectSet(made[1 + a % (made.Count - 1)].Id, n % 2 == 0), made.Count + 1));
                        else if (!change.IsEmpty)
                            made.Add(person.Make(new Change.TextTyped(table, change), made.Count + 1));
                        else
                            continue;
                        page.Apply(made[^1]);
                        // It is not looked at after each of several things that were done.
                        if (n % 3 == 1)
                            continue;
                        var fresh = new PageDocument();
                        foreach (var one in made)
                            fresh.Apply(one);
                        Assert.Equal(Shown((TableContent)fresh.Find(table)!.Content), Shown((TableContent)page.Find(table)!.Content));
                    }
                },
                iter: 400
            );

    private static string Letters(int what) =>
        what switch
        {
            0 => "7",
            1 => ".5",
            2 => "word ",
            3 => "many words that take several lines ",
            4 => "\u2028",
            _ => "\n",
        };

    /// <summary>All that is seen of a table: its edges, the letters of its cells and where in the text they stand, what is filled, and what stands under columns.</summary>
    private static List<string> Shown(TableContent table)
    {
        var layout = table.Layout;
        return
        [
            string.Join(' ', layout.Across),
            string.Join(' ', layout.Down),
            string.Join('|', layout.Totals),
            .. layout.Text.Cells.Select(cell =>
                $"{cell.Name} {cell.Row} {cell.Column} {cell.LastRow} {cell.LastColumn} {cell.Text} {cell.HasLetters} {layout.BeginningOf(cell)} {Lines(layout.SetOf(cell))}"
            ),
            .. layout.Text.Cells.SelectMany(cell => cell.Paragraphs.Select(one => $"{one.Start} {layout.Text.CellOf(one.End).Name}")),
            .. layout
                .Fills(0xFFFFFFFF, WrittenContent.Ink, 0x112233FF, 20)
                .Select(fill =>
                    $"{fill.Colour:x8} {string.Join(' ', fill.Rings.SelectMany(ring => ring).Select(at => $"{at.X:0.##},{at.Y:0.##}"))}"
                ),
        ];

        static string Lines(SetText set) =>
            string.Join(
                ' ',
                set.Paragraphs.SelectMany(one =>
                    one.Paragraph.Lines.Select(line => $"{one.Start}+{line.Start}-{line.End}@{line.Left},{one.Y + line.Y} {line.Width}")
                )
            );
    }

    [Fact]
    public void Words_without_a_cell_are_seen_in_the_first_one()
    {
        var table = Numbered(1, 2);
        Do(
            Tobias,
            new Change.TextTyped(table, new TextChange([Item(table).Typed.InsertionAt(Item(table).Typed.Length, "astray")], [], []))
        );
        Assert.Equal("00 astray\t01", Words(table));
    }

    [Fact]
    public void What_is_written_by_hand_in_a_cell_goes_along_with_it()
    {
        var table = Numbered(3, 2);
        var (second, third) = (Line(500, 1_200, 2_500, 1_200), Line(3_500, 2_000, 5_500, 2_000));
        var below = Line(500, 4_000, 2_500, 4_000);
        Perform(edit => edit.MoveRow(2, 0));
        Assert.Equal(1_200 + TableLayout.UsualRow, Item(second).Bounds.Top + 20);
        Assert.Equal(2_000 - 2 * TableLayout.UsualRow, Item(third).Bounds.Top + 20);
        Assert.Equal(4_000, Item(below).Bounds.Top + 20);
        Perform(edit => edit.SetWidth(0, 5_000));
        Assert.Equal(3_500 + 2_000, Item(third).Bounds.Left + 20);
        // The whole of it is one thing to be taken.
        Assert.Contains(second, OnSlips.With(Page, [Item(table)]).Select(item => item.Id));

        void Perform(Action<TableEdit> act)
        {
            foreach (var change in OnTables.With(Page, Item(table), Change(table, act), 1))
                Do(Ines, change);
        }
    }

    [Fact]
    public void A_copy_holds_the_same_cells_and_what_is_done_to_it_is_not_done_to_the_other()
    {
        var table = Numbered(2, 2);
        Edit(Ines, table, edit => edit.Join(Layout(table).Text[0, 0], 0, 1));
        Edit(Ines, table, edit => edit.RemoveRow(1));
        var copy = Do(Tobias, Item(table).Content.Copy()).Id;
        Assert.Equal(Words(table), Words(copy));
        Assert.Equal(Layout(table).Down, Layout(copy).Down);
        Write(Tobias, copy, 0, 0, "other");
        Assert.Equal("other\n01", Layout(copy).Text[0, 0].Text);
        Assert.Equal("00\n01", Layout(table).Text[0, 0].Text);
    }

    [Fact]
    public void It_stands_when_the_past_is_closed()
    {
        var table = Numbered(3, 3);
        Edit(Ines, table, edit => edit.RemoveRow(1));
        Edit(Ines, table, edit => edit.AddColumns(1, 1));
        Edit(Tobias, table, edit => edit.Sort(0, true, 0));
        var standing = new PageDocument();
        foreach (var operation in StandingPage.Of(Page))
            standing.Apply(operation);
        Assert.Equal(Words(table), ((TableContent)standing.Find(table)!.Content).Layout.Text.Words);
    }

    [Fact]
    public void Lines_that_were_ruled_with_the_pen_are_a_table_and_what_is_none_is_not()
    {
        OpId[] lines =
        [
            Put(new Shape(ShapeKind.Rectangle, [At(1_000, 1_000), At(7_000, 1_000), At(7_000, 4_000), At(1_000, 4_000)])),
            Put(new Shape(ShapeKind.Line, [At(1_020, 2_000), At(6_950, 2_010)])),
            Put(new Shape(ShapeKind.Line, [At(3_000, 1_010), At(3_010, 4_000)])),
        ];
        var drawn = DrawnTable.Of([.. lines.Select(Item)])!;
        Assert.Equal((1_000, 1_000), (drawn.X, drawn.Y));
        Assert.Equal([2_005, 3_995], drawn.Widths);
        Assert.Equal([1_005, 1_995], drawn.Heights);
        Assert.Null(DrawnTable.Of([Item(lines[0])]));
        Assert.Null(DrawnTable.Of([Item(lines[1]), Item(lines[2])]));
        var leaning = Put(new Shape(ShapeKind.Line, [At(1_000, 1_000), At(7_000, 4_000)]));
        Assert.Null(DrawnTable.Of([.. lines.Append(leaning).Select(Item)]));
        // What is written between them is not one of them.
        Assert.Equal(drawn.Widths, DrawnTable.Of([.. lines.Append(Line(0, 0, 9_000, 0)).Select(Item)])!.Widths);
        var ring = Put(new Shape(ShapeKind.Circle, [At(2_000, 2_000), At(2_500, 2_000)]));
        Assert.Null(DrawnTable.Of([.. lines.Append(ring).Select(Item)]));
    }

    [Fact]
    public void The_first_two_columns_of_numbers_can_be_plotted()
    {
        var table = Lay(4, 3);
        Edit(Ines, table, edit => edit.Paste(0, 0, TableSheet.Read("bob\tl in m\tT in s\nbrass\t0,25\t1.003\nlead\t\t2\niron\t1\t2.006")));
        var plot = TablePlot.Of(Layout(table).Text)!;
        Assert.Equal([(0.25, 1.003), (1, 2.006)], plot.Points);
        Assert.Equal("l in m\nT in s", plot.Axes);
        Assert.Null(TablePlot.Of(Layout(Numbered(2, 1)).Text));
    }

    [Theory]
    [InlineData(Trait.Cell, "r:")]
    [InlineData(Trait.Cell, "1 2 3")]
    [InlineData(Trait.Cell, "r:ä")]
    [InlineData(Trait.Cell, "1234567890123 1")]
    [InlineData(Trait.Place, "a0")]
    [InlineData(Trait.Extent, "299")]
    [InlineData(Trait.Extent, "60001")]
    [InlineData(Trait.Span, "c:1")]
    [InlineData(Trait.Total, "median")]
    [InlineData(Trait.Fill, "red")]
    public void What_is_not_well_formed_is_refused(Trait trait, string value) =>
        Assert.NotNull(WritingRules.Check(new Passage("\n", [new PassageFormat(0, 1, trait, value)])));

    private static readonly string[] Odd = ["", "a", "b c", "\"", "1\t2", "x\ny", "\"q\" z", "é", "wide \""];

    private OpId Lay(int rows, int columns) =>
        Do(
            Ines,
            new Change.ThingAdded(
                ThingKind.Table,
                Transform.Shift(0, 0),
                3_000 * columns,
                2_000,
                TableEdit.New(new int[columns], new int[rows]),
                []
            )
        ).Id;

    [Fact]
    public void A_plot_follows_what_is_typed_in_its_table_and_stays_as_it_is_when_that_is_gone()
    {
        var table = Numbers();
        var plot = Plot(table);
        Assert.Equal("y = 2·x   R² = 1", Assert.Single(Content(plot).Told));
        Page.TakeChanged();
        Write(Tobias, table, 2, 1, "8");
        Assert.Contains(plot, Page.TakeChanged());
        Assert.Equal([(1, 2), (2, 8), (3, 6)], Content(plot).DataOf(ItemField.Data1)!.Points);
        // The first of three columns that hold numbers are meant, wherever they are moved.
        Edit(Ines, table, edit => edit.MoveColumn(0, 1));
        Assert.Equal([(2, 1), (8, 2), (6, 3)], Content(plot).DataOf(ItemField.Data1)!.Points);
        UndoAll(Ines);
        // A cell that is no number just now leaves nothing to follow: what was there first is shown.
        Write(Tobias, table, 2, 1, "eight");
        Assert.Equal([(1, 2), (2, 4), (3, 6)], Content(plot).DataOf(ItemField.Data1)!.Points);
        UndoAll(Tobias);
        Do(Tobias, new Change.ItemsRemoved([table]));
        Assert.Equal([(1, 2), (2, 8), (3, 6)], Content(plot).DataOf(ItemField.Data1)!.Points);
        // Points of one's own.
        Do(Ines, new Change.ItemsSet([plot], [new ItemValue(ItemField.Table, "")]));
        Assert.Equal([(1, 2), (2, 4), (3, 6)], Content(plot).DataOf(ItemField.Data1)!.Points);
    }

    [Fact]
    public void A_plot_is_the_same_whatever_comes_first_and_when_its_past_is_closed()
    {
        var table = Numbers();
        var plot = Plot(table);
        Write(Tobias, table, 2, 1, "8");
        var chance = new Random(5);
        for (var round = 0; round < 6; round++)
        {
            var again = new PageDocument();
            foreach (var operation in Page.Operations().OrderBy(_ => chance.Next()))
                again.Apply(operation);
            Assert.Equal(Page.EncodeState(), again.EncodeState());
            Assert.Equal([(1, 2), (2, 8), (3, 6)], Points(again));
        }

        Assert.Equal([(1, 2), (2, 8), (3, 6)], Points(Closed()));
        // Without its table nothing of that is left, and the plot shows the same.
        Do(Tobias, new Change.ItemsRemoved([table]));
        var closed = Closed();
        Assert.Null(closed.Find(table));
        Assert.Equal([(1, 2), (2, 8), (3, 6)], Points(closed));
        Assert.Empty(((PlotContent)closed.Find(plot)!.Content).LeansOn);

        PageDocument Closed()
        {
            var page = new PageDocument();
            foreach (var operation in StandingPage.Of(Page))
                page.Apply(operation);
            return page;
        }

        IEnumerable<(double, double)> Points(PageDocument page) => ((PlotContent)page.Find(plot)!.Content).DataOf(ItemField.Data1)!.Points;
    }

    [Fact]
    public void A_copy_of_a_plot_follows_the_copy_of_its_table_and_alone_it_shows_what_it_showed()
    {
        var table = Numbers();
        var plot = Plot(table);
        Write(Tobias, table, 2, 1, "8");
        var both = Cutting.Open(Cutting.Of(Page, new HashSet<OpId> { table, plot }));
        var copy = both.Items.Select(item => item.Content).OfType<PlotContent>().Single();
        Assert.NotNull(copy.Table);
        Assert.Contains(both.Items, item => item.Id == copy.Table && item.Content is TableContent);
        Assert.Equal([(1, 2), (2, 8), (3, 6)], copy.DataOf(ItemField.Data1)!.Points);
        var alone = Cutting
            .Open(Cutting.Of(Page, new HashSet<OpId> { plot }))
            .Items.Select(item => item.Content)
            .OfType<PlotContent>()
            .Single();
        Assert.Null(alone.Table);
        Assert.Equal([(1, 2), (2, 8), (3, 6)], alone.DataOf(ItemField.Data1)!.Points);
    }

    [Fact]
    public void A_plot_that_is_said_to_follow_itself_or_no_table_shows_its_own_points()
    {
        var plot = Plot(Line(0, 0, 900, 900));
        Assert.Equal([(1, 2), (2, 4), (3, 6)], Content(plot).DataOf(ItemField.Data1)!.Points);
        Do(Ines, new Change.ItemsSet([plot], [new ItemValue(ItemField.Table, plot.ToString())]));
        Assert.Equal([(1, 2), (2, 4), (3, 6)], Content(plot).DataOf(ItemField.Data1)!.Points);
        Do(Ines, new Change.ItemsTransformed([plot], [], Transform.Shift(500, 0)));
        Assert.True(Item(plot).Shown);
    }

    /// <summary>A table of which the second column is twice the first.</summary>
    private OpId Numbers()
    {
        var table = Lay(4, 2);
        Edit(
            Tobias,
            table,
            edit =>
                edit.Paste(
                    0,
                    0,
                    [
                        ["length", "time"],
                        ["1", "2"],
                        ["2", "4"],
                        ["3", "6"],
                    ]
                )
        );
        return table;
    }

    private OpId Plot(OpId table)
    {
        var plot = Do(
            Ines,
            new Change.ThingAdded(
                ThingKind.Plot,
                Transform.Shift(0, 9_000),
                9_000,
                6_000,
                new Passage("", []),
                [new ItemValue(ItemField.Data1, "1f5f8bff 1 1 2 2 4 3 6")]
            )
        ).Id;
        Do(Ines, new Change.ItemsSet([plot], [new ItemValue(ItemField.Table, table.ToString())]));
        return plot;
    }

    private PlotContent Content(OpId plot) => (PlotContent)Item(plot).Content;

    /// <summary>A table whose cells say where they are.</summary>
    private OpId Numbered(int rows, int columns)
    {
        var table = Lay(rows, columns);
        Edit(
            Tobias,
            table,
            edit =>
                edit.Paste(
                    0,
                    0,
                    [.. Enumerable.Range(0, rows).Select(row => Enumerable.Range(0, columns).Select(column => $"{row}{column}").ToList())]
                )
        );
        return table;
    }

    private TableLayout Layout(OpId table) => ((TableContent)Item(table).Content).Layout;

    private string Words(OpId table) => Item(table).Content.Words;

    private TableName NameAt(OpId table, int row, int column) => Layout(table).Text[row, column].Name;

    private TextChange Change(OpId table, Action<TableEdit> act)
    {
        var edit = new TableEdit(Item(table).Typed, 1);
        act(edit);
        return edit.Change;
    }

    private void Edit(Replica device, OpId table, Action<TableEdit> act)
    {
        if (Change(table, act) is { IsEmpty: false } change)
            Do(device, new Change.TextTyped(table, change));
    }

    private void Write(Replica device, OpId table, int row, int column, string words) =>
        Edit(device, table, edit => edit.Write(NameAt(table, row, column), words));
}
