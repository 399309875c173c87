using CalmQuill.Core.Access;
using CalmQuill.Core.Asides;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>An aside lies over its page, and what was written on it goes along with what it was written at.</summary>
public sealed class AsideTests
{
    private readonly Replica maren = new(1, Generate.People[0]),
        ines = new(2, Generate.People[1]);
    private readonly PageDocument page = new(),
        aside = new();
    private readonly AsideLay lay;
    private long now = 1_790_000_000_000;

    public AsideTests() => lay = new AsideLay(aside, page);

    [Fact]
    public void A_note_goes_along_with_what_it_was_written_at_and_comes_back_when_that_is_taken_back()
    {
        var word = Write(page, maren, 5000, 5000);
        var note = Note(5050, 5100);
        var there = Box(note);
        var moved = Do(page, maren, new Change.ItemsShifted([word], 700, -300));
        Assert.True(lay.Follow());
        Assert.Equal(there.Shift(700, -300), Box(note));
        Do(page, maren, new Change.ItemsTransformed([word], [], Transform.Scale(2, 0, 0)));
        lay.Follow();
        Assert.Equal(page.Find(word)!.Bounds.Left + 2 * 50, Box(note).Left, 3.0);
        Do(page, maren, new Change.EffectSet(moved, false));
        lay.Follow();
        Assert.Equal(page.Find(word)!.Bounds.Left + 2 * 50, Box(note).Left, 3.0);
        Assert.False(lay.Follow());
    }

    [Fact]
    public void What_was_done_before_it_was_written_is_not_done_to_it_and_taking_that_back_takes_it_along()
    {
        var word = Write(page, maren, 5000, 5000);
        var before = Do(page, maren, new Change.ItemsShifted([word], 1000, 0));
        var note = Note(6000, 5000);
        var there = Box(note);
        lay.Follow();
        Assert.Equal(there, Box(note));
        Do(page, maren, new Change.EffectSet(before, false));
        lay.Follow();
        Assert.Equal(there.Shift(-1000, 0), Box(note));
    }

    [Fact]
    public void What_somebody_did_before_without_a_connection_takes_it_along_when_it_comes()
    {
        var word = Write(page, maren, 5000, 5000);
        var tobias = new Replica(3, Generate.People[2]);
        var late = tobias.Make(new Change.ItemsShifted([word], 0, 4000), now + 10);
        now += 60_000;
        var note = Note(5000, 5000);
        var there = Box(note);
        page.Apply(late);
        Assert.True(lay.Follow());
        Assert.Equal(there.Shift(0, 4000), Box(note));
    }

    [Fact]
    public void What_the_person_does_to_the_note_keeps_its_place_among_the_pages_steps()
    {
        var word = Write(page, maren, 5000, 5000);
        var note = Note(5000, 5000);
        Do(aside, ines, new Change.ItemsShifted([note], 0, 900));
        Do(page, maren, new Change.ItemsTransformed([word], [], new Transform(0, Transform.One, -Transform.One, 0, 20000, 0)));
        Do(aside, ines, new Change.ItemsShifted([note], 100, 0));
        lay.Follow();
        // Turned about (0,0) and pushed right: (x, y) lies at (20000 − y, x); then the last step of her own.
        Assert.Equal(20000 - (5000 + 900) + 100, Box(note).Right, 60.0);
        Assert.Equal(5000, Box(note).Top, 60.0);
    }

    [Fact]
    public void A_note_in_the_margin_belongs_to_its_line_and_a_word_is_not_torn()
    {
        var first = Write(page, maren, 3000, 4000);
        var second = Write(page, maren, 3000, 6000);
        Assert.Equal(first, On(Note(6500, 4050)));
        Assert.Equal(second, On(Note(6500, 6050)));
        // It goes on at once, and nearer to the other line: it is the same word.
        now -= 50_000;
        Assert.Equal(second, On(Note(6500, 5300)));
        now += 60_000;
        Assert.Null(On(Note(14_000, 20_000)));
    }

    [Fact]
    public void What_is_not_on_the_page_any_more_leaves_the_note_where_it_is_and_holds_no_new_one()
    {
        var word = Write(page, maren, 5000, 5000);
        var note = Note(5000, 5000);
        Do(page, maren, new Change.ItemsShifted([word], 500, 0));
        lay.Follow();
        var there = Box(note);
        Do(page, maren, new Change.ItemsRemoved([word]));
        lay.Follow();
        Assert.Equal(there, Box(note));
        Assert.Null(On(Note(5500, 5000)));
    }

    [Fact]
    public void It_holds_ink_and_what_that_was_written_at_and_no_marks_and_a_page_holds_no_anchors()
    {
        OpId no = new(1, (1UL << 48) + 1),
            yes = new(1, 1UL << 48);
        var spot = new Change.SpotSet(Generate.Node(1), [new SpotValue(SpotField.Note, "mine")]);
        Assert.Null(Checked(Stroke(100, 100, now), DocumentKind.Aside));
        Assert.Null(Checked(new Change.ItemsAnchored([yes], yes, Transform.Identity), DocumentKind.Aside));
        Assert.Equal("wrong-document", Checked(new Change.ItemsAnchored([yes], yes, Transform.Identity), DocumentKind.Page));
        Assert.Equal("wrong-document", Checked(spot, DocumentKind.Aside));
        Assert.Equal("wrong-document", Checked(new Change.Visited(Generate.Node(1), Generate.Node(2)), DocumentKind.Aside));
        Assert.Equal("bad-id", Checked(new Change.ItemsAnchored([no], yes, Transform.Identity), DocumentKind.Aside));
        Assert.Equal("bad-id", Checked(new Change.ItemsAnchored([yes], no, Transform.Identity), DocumentKind.Aside));
        Assert.Equal("empty", Checked(new Change.ItemsAnchored([], yes, Transform.Identity), DocumentKind.Aside));
        Assert.Equal("too-far", Checked(new Change.ItemsAnchored([yes], yes, default), DocumentKind.Aside));
    }

    private string? Checked(Change change, DocumentKind kind) =>
        OperationRules.Check(ines.Make(change, now), kind, Role.Owner, ines.Author, now)?.Code;

    [Fact]
    public void Being_written_at_something_is_no_step_to_undo()
    {
        Write(page, maren, 5000, 5000);
        var note = Note(5000, 5000);
        Assert.Equal([new Change.EffectSet(note, false)], aside.Undo(ines.Author));
    }

    /// <summary>The reference is one page that holds both: every step of the page that was made after the note names the note too.</summary>
    [Fact]
    public void However_steps_and_notes_come_the_note_lies_where_a_thing_of_the_page_would_lie() =>
        Gen.Select(Gen.Select(Gen.Int[0, 4], Gen.Int[-500, 500], Gen.Int[-500, 500]).Array[1, 12], Gen.Int[0, 12], Gen.Int)
            .Sample(
                (steps, writtenAfter, seed) =>
                {
                    Replica leader = new(1, Generate.People[0]),
                        pupil = new(2, Generate.People[1]);
                    PageDocument over = new(),
                        both = new(),
                        own = new();
                    var layed = new AsideLay(own, over);
                    List<(PageDocument Document, Operation Operation)> made = [];
                    long at = 1_790_000_000_000;
                    var word = leader.Make(Stroke(5000, 5000, at), at);
                    made.Add((over, word));
                    over.Apply(word);
                    both.Apply(word);
                    OpId? note = null;
                    for (var i = 0; i <= steps.Length; i++)
                    {
                        at += 10;
                        if (i == Math.Min(writtenAfter, steps.Length))
                        {
                            var box = over.Find(word.Id)!.Bounds;
                            var written = pupil.Make(Stroke(box.Left, box.Top, at), at);
                            own.Apply(written);
                            both.Apply(written);
                            var anchored = pupil.Make(layed.AnchorFor(own.Find(written.Id)!)!, at);
                            own.Apply(anchored);
                            made.AddRange([(own, written), (own, anchored)]);
                            note = written.Id;
                        }

                        if (i == steps.Length)
                            break;
                        var (what, x, y) = steps[i];
                        Change Step(params OpId[] items) =>
                            what switch
                            {
                                0 => new Change.ItemsTransformed(items, [], Transform.Scale(1 + x / 1000.0, x, y)),
                                1 => new Change.ItemsTransformed(
                                    items,
                                    [],
                                    new Transform(0, Transform.One, -Transform.One, 0, 20000 + x, y)
                                ),
                                _ => new Change.ItemsShifted(items, x, y),
                            };
                        var ofThePage = what < 4 || note is null;
                        var step = ofThePage ? leader.Make(Step(word.Id), at) : pupil.Make(Step(note!.Value), at);
                        (ofThePage ? over : own).Apply(step);
                        made.Add((ofThePage ? over : own, step));
                        OpId[] named =
                            !ofThePage ? [note!.Value]
                            : note is { } there ? [word.Id, there]
                            : [word.Id];
                        both.Apply(step with { Change = Step(named) });
                    }

                    PageDocument otherPage = new(),
                        otherAside = new();
                    var otherLay = new AsideLay(otherAside, otherPage);
                    foreach (var (document, operation) in made.OrderBy(one => HashCode.Combine(seed, one.Operation.Id)))
                    {
                        (document == over ? otherPage : otherAside).Apply(operation);
                        otherLay.Follow();
                    }

                    layed.Follow();
                    var expected = both.Find(note!.Value)!.Bounds;
                    foreach (var came in new[] { own, otherAside })
                    {
                        var lies = came.Find(note.Value)!.Bounds;
                        // Matrices are kept in whole numbers: a step more or less is a hundredth of a millimetre.
                        Assert.InRange(lies.Left, expected.Left - 3, expected.Left + 3);
                        Assert.InRange(lies.Bottom, expected.Bottom - 3, expected.Bottom + 3);
                    }

                    Assert.Equal(own.EncodeState(), otherAside.EncodeState());
                }
            );

    private static Change.StrokeAdded Stroke(int x, int y, long at) =>
        new(
            new Pen(PenKind.Ball, 40, 0x1F3D3AFF),
            at,
            new StrokeSamples([x, x + 300, x + 600], [y, y + 100, y], [500, 500, 500], [0, 8, 16], [0, 0, 0], [0, 0, 0])
        );

    private OpId Do(PageDocument document, Replica who, Change change)
    {
        now += 10_000;
        var operation = who.Make(change, now);
        Assert.True(document.Apply(operation));
        return operation.Id;
    }

    private OpId Write(PageDocument document, Replica who, int x, int y) => Do(document, who, Stroke(x, y, now + 10_000));

    private OpId Note(int x, int y)
    {
        var note = Write(aside, ines, x, y);
        if (lay.AnchorFor(aside.Find(note)!) is { } anchored)
            Do(aside, ines, anchored);
        return note;
    }

    private OpId? On(OpId note) => aside.Anchors.All.TryGetValue(note, out var anchor) ? anchor.On : null;

    private Box Box(OpId item) => aside.Find(item)!.Bounds;
}
