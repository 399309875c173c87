using System.Globalization;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;
using CsCheck;
using static CalmQuill.Core.Tests.NaiveText;

namespace CalmQuill.Core.Tests;

/// <summary>
/// Typed text on several devices at once, held against the definitions of Weidner and Kleppmann (2023) and Litt et al. (2022) as <see cref="NaiveText"/>
/// has them.
/// </summary>
public sealed class TypedTextTests
{
    private const int Devices = 3;

    /// <summary>What somebody does next: on which device, what, where, how much.</summary>
    private sealed record Step(int Device, int What, int Where, int Much);

    private static readonly Gen<List<Step>> Steps = Gen.Select(
        Gen.Int[0, Devices - 1],
        Gen.Int[0, 11],
        Gen.Int[0, 1000],
        Gen.Int[0, 1000],
        (device, what, where, much) => new Step(device, what, where, much)
    ).List[1, 60];

    /// <summary>Devices that write and hear of each other now and then.</summary>
    private sealed class Session
    {
        public sealed class Device(ulong number)
        {
            private ulong counter;

            public TypedText Text { get; } = new();

            public List<Taken> Known { get; } = [];

            public Taken Make(TextChange change, long time)
            {
                var id = new OpId(number, ++counter);
                return Hear(new Taken(id, new Stamp(Hlc.At(time), id), change));
            }

            public Taken Hear(Taken taken)
            {
                Known.Add(taken);
                Text.Take(taken.Id, taken.Stamp, taken.Change, taken.Active);
                return taken;
            }

            public void HearAll(Device other)
            {
                var known = Known.Select(taken => taken.Id).ToHashSet();
                foreach (var taken in other.Known.Where(taken => !known.Contains(taken.Id)).ToList())
                    Hear(taken);
            }

            public void Switch(OpId id, bool active)
            {
                var place = Known.FindIndex(taken => taken.Id == id);
                Known[place] = Known[place] with { Active = active };
                Text.SetActive(id, active);
            }
        }

        public Device[] All { get; } = [.. Enumerable.Range(1, Devices).Select(number => new Device((ulong)number))];

        public List<Taken> Made { get; } = [];

        private long time = 1_000;

        public void Do(Step step)
        {
            var device = All[step.Device];
            var text = device.Text;
            var at = step.Where % (text.Length + 1);
            switch (step.What)
            {
                case <= 4:
                    var letters = string.Concat(
                        Enumerable
                            .Range(0, 1 + step.Much % 5)
                            .Select(i => step.Much % 9 == 0 && i == 1 ? '\n' : (char)('a' + (step.Much + i) % 26))
                    );
                    Make(device, new TextChange([text.InsertionAt(at, letters)], [], []));
                    break;
                case 5 or 6 when text.Length > 0:
                    at = step.Where % text.Length;
                    Make(device, new TextChange([], text.RemovalsOf(at, Math.Min(text.Length - at, 1 + step.Much % 6)), []));
                    break;
                case 7 when text.Length > 0:
                    at = step.Where % text.Length;
                    var trait = (step.Much % 3) switch
                    {
                        0 => Trait.Bold,
                        1 => Trait.Link,
                        _ => Trait.Colour,
                    };
                    Make(
                        device,
                        new TextChange(
                            [],
                            [],
                            [
                                text.FormatOf(
                                    at,
                                    Math.Min(text.Length - at, 1 + step.Much % 7),
                                    trait,
                                    step.Much % 4 == 0 ? "" : $"{step.Much % 2}"
                                ),
                            ]
                        )
                    );
                    break;
                case 8:
                    Make(
                        device,
                        new TextChange(
                            [],
                            [],
                            [
                                text.FormatOfParagraphs(
                                    at,
                                    step.Much % 3,
                                    step.Much % 2 == 0 ? Trait.Style : Trait.Indent,
                                    $"{step.Much % 5}"
                                ),
                            ]
                        )
                    );
                    break;
                case 9 when device.Known.Count > 0:
                    var one = device.Known[step.Where % device.Known.Count];
                    device.Switch(one.Id, !one.Active);
                    break;
                default:
                    device.HearAll(All[(step.Device + 1 + step.Much % (Devices - 1)) % Devices]);
                    break;
            }
        }

        private void Make(Device device, TextChange change) => Made.Add(device.Make(change, time += 10));
    }

    private static Session Played(List<Step> steps)
    {
        var session = new Session();
        foreach (var step in steps)
            session.Do(step);
        return session;
    }

    [Fact]
    public void Every_device_shows_what_the_operations_it_knows_come_to() =>
        Steps.Sample(
            steps =>
            {
                foreach (var device in Played(steps).All)
                {
                    var wanted = Of(device.Known);
                    Assert.Equal(wanted, Of(device.Text));
                    Assert.Equal(wanted.Count, device.Text.Length);
                    Assert.Equal(string.Concat(wanted.Select(one => one.Letter)), device.Text.Text);
                }
            },
            iter: 1_500
        );

    [Fact]
    public void In_whatever_order_and_however_often_they_arrive_it_is_the_same() =>
        Gen.Select(Steps, Gen.Int[0, int.MaxValue - 1])
            .Sample(
                (steps, seed) =>
                {
                    var made = Played(steps).Made;
                    var random = new Random(seed);
                    var order = made.Concat(made.Where(_ => random.Next(3) == 0)).ToArray();
                    random.Shuffle(order);
                    var text = new TypedText();
                    var arrived = new Dictionary<OpId, Taken>();
                    foreach (var taken in order)
                    {
                        arrived.TryAdd(taken.Id, taken);
                        text.Take(taken.Id, taken.Stamp, taken.Change);
                        // What leans on something that has not come waits for it.
                        if (random.Next(8) == 0)
                            Assert.Equal(Of(arrived.Values), Of(text));
                    }

                    Assert.Equal(Of(made), Of(text));
                },
                iter: 1_500
            );

    [Fact]
    public void Going_back_it_is_as_it_was_before_each_operation_also_where_clocks_ran_wrong() =>
        Gen.Select(Steps, Gen.Int[0, int.MaxValue - 1])
            .Sample(
                (steps, seed) =>
                {
                    var random = new Random(seed);
                    var made = Played(steps)
                        .Made.Select(taken =>
                            random.Next(6) == 0 ? taken with { Stamp = new Stamp(Hlc.At(random.Next(1, 2_000)), taken.Id) } : taken
                        )
                        .OrderBy(taken => taken.Stamp)
                        .ToList();
                    var text = new TypedText();
                    foreach (var taken in made)
                        text.Take(taken.Id, taken.Stamp, taken.Change);
                    for (var count = made.Count; count >= 0; count--)
                    {
                        Assert.Equal(Of(made.Take(count)), Of(text));
                        if (count == 0)
                            break;
                        text.Withdraw(made[count - 1].Id);
                        // Somebody takes one of those back, or has it again, on the way.
                        if (count == 1 || random.Next(3) > 0)
                            continue;
                        var one = random.Next(count - 1);
                        made[one] = made[one] with { Active = !made[one].Active };
                        text.SetActive(made[one].Id, made[one].Active);
                    }

                    foreach (var taken in made)
                        text.Take(taken.Id, taken.Stamp, taken.Change, taken.Active);
                    Assert.Equal(Of(made), Of(text));
                },
                iter: 400
            );

    /// <summary>Also at places at which nobody types, as between letters of one run on the side where the next one hangs.</summary>
    [Fact]
    public void Wherever_letters_are_hung_in_the_tree_all_have_the_same_order() =>
        Gen.Select(Gen.Int[1, 4], Gen.Int[0, 1000], Gen.Bool, Gen.Int[1, 4])
            .List[1, 40]
            .Sample(
                hung =>
                {
                    var (text, backwards) = (new TypedText(), new TypedText());
                    var made = new List<Taken>();
                    var letters = new List<LetterId> { LetterId.Start };
                    foreach (var (replica, where, before, count) in hung)
                    {
                        var at = letters[where % letters.Count];
                        var id = new OpId((ulong)replica, (ulong)made.Count + 1);
                        var insertion = new Insertion(at, before && at != LetterId.Start, new string((char)('a' + made.Count % 26), count));
                        made.Add(new Taken(id, new Stamp(Hlc.At(1), id), new TextChange([insertion], [], [])));
                        letters.AddRange(Enumerable.Range(0, count).Select(i => new LetterId(id, i)));
                    }

                    foreach (var taken in made)
                        text.Take(taken.Id, taken.Stamp, taken.Change);
                    foreach (var taken in made.AsEnumerable().Reverse())
                        backwards.Take(taken.Id, taken.Stamp, taken.Change);
                    Assert.Equal(Of(made), Of(text));
                    Assert.Equal(Of(made), Of(backwards));
                },
                iter: 3_000
            );

    [Fact]
    public void A_letter_is_found_where_it_stands() =>
        Steps.Sample(
            steps =>
            {
                var text = Played(steps).All[0].Text;
                for (var i = 0; i <= text.Length; i++)
                    Assert.Equal(i, text.PositionOf(text.At(i)));
            },
            iter: 300
        );

    [Fact]
    public void What_one_types_and_removes_alone_is_where_one_did_it() =>
        Gen.Select(Gen.Int[0, 2], Gen.Int[0, 1000], Gen.Int[1, 5])
            .List[1, 80]
            .Sample(
                steps =>
                {
                    var device = new Session.Device(1);
                    var wanted = "";
                    foreach (var (what, where, much) in steps)
                    {
                        var at = where % (wanted.Length + 1);
                        var letters = new string((char)('a' + where % 26), much);
                        var count = Math.Min(much, wanted.Length - at);
                        if (what > 0)
                            device.Make(new TextChange([device.Text.InsertionAt(at, letters)], [], []), 1);
                        else
                            device.Make(new TextChange([], device.Text.RemovalsOf(at, count), []), 1);
                        wanted = what > 0 ? wanted.Insert(at, letters) : wanted.Remove(at, count);
                        Assert.Equal(wanted, device.Text.Text);
                    }
                },
                iter: 500
            );

    /// <summary>Held against loro-crdt 1.17.1, whose texts go by Fugue: see <c>make-sequences.mjs</c>.</summary>
    [Fact]
    public void Three_peoples_writing_comes_to_the_text_that_another_maker_of_fugue_has_of_it()
    {
        var lines = File.ReadAllLines(Path.Combine(Repository.Root, "tests", "CalmQuill.Core.Tests", "sequences.txt"));
        Assert.Equal(800, lines.Length);
        foreach (var (steps, text) in lines.Chunk(2).Select(pair => (pair[0], pair[1])))
        {
            var session = new Session();
            foreach (var step in steps.Split('\t'))
            {
                var device = session.All[step[0] - '0'];
                var rest = step[2..].Split(':');
                var at = int.Parse(rest[0], CultureInfo.InvariantCulture);
                if (step[1] == '<')
                    device.HearAll(session.All[at]);
                else
                    device.Make(
                        step[1] == '+'
                            ? new TextChange([device.Text.InsertionAt(at, rest[1])], [], [])
                            : new TextChange([], device.Text.RemovalsOf(at, int.Parse(rest[1], CultureInfo.InvariantCulture)), []),
                        1
                    );
            }

            foreach (var device in session.All)
            {
                foreach (var other in session.All)
                    device.HearAll(other);
                Assert.Equal(text, device.Text.Text);
            }
        }
    }

    /// <summary>Forwards letter by letter, backwards letter by letter, and in pieces: what each typed stays together.</summary>
    [Theory]
    [InlineData(false, 1)]
    [InlineData(true, 1)]
    [InlineData(false, 3)]
    [InlineData(true, 3)]
    public void What_two_type_at_one_place_at_once_is_not_mixed(bool backwards, int atOnce)
    {
        var session = new Session();
        var (one, two) = (session.All[0], session.All[1]);
        two.Hear(one.Make(new TextChange([one.Text.InsertionAt(0, "shopping: .")], [], []), 1));
        var (mine, theirs) = (TypeAt(one, "bread, ", backwards, atOnce), TypeAt(two, "milk, ", backwards, atOnce));
        foreach (var taken in theirs)
            one.Hear(taken);
        foreach (var taken in mine)
            two.Hear(taken);
        Assert.Equal(one.Text.Text, two.Text.Text);
        Assert.Contains(one.Text.Text, (string[])["shopping: bread, milk, .", "shopping: milk, bread, ."]);

        static List<Taken> TypeAt(Session.Device device, string words, bool backwards, int atOnce)
        {
            var pieces = words.Chunk(atOnce).Select(chunk => new string(chunk)).ToList();
            var made = new List<Taken>();
            var at = 10;
            foreach (var piece in backwards ? pieces.AsEnumerable().Reverse() : pieces)
            {
                made.Add(device.Make(new TextChange([device.Text.InsertionAt(at, piece)], [], []), 2));
                at += backwards ? 0 : piece.Length;
            }

            return made;
        }
    }

    [Fact]
    public void What_is_typed_into_what_another_removes_stays_and_what_was_removed_is_gone()
    {
        var session = new Session();
        var (one, two) = (session.All[0], session.All[1]);
        two.Hear(one.Make(new TextChange([one.Text.InsertionAt(0, "The old brass pallets")], [], []), 1));
        var removed = one.Make(new TextChange([], one.Text.RemovalsOf(4, 10), []), 2);
        var typed = two.Make(new TextChange([two.Text.InsertionAt(7, "est")], [], []), 2);
        one.Hear(typed);
        two.Hear(removed);
        Assert.Equal("The estpallets", one.Text.Text);
        Assert.Equal(one.Text.Text, two.Text.Text);
        // Taken back, the word is whole again with what came into it.
        one.Switch(removed.Id, false);
        Assert.Equal("The oldest brass pallets", one.Text.Text);
    }

    /// <summary>The cases of Litt et al.: bold where another types, at its end, beyond it; links do not grow; the later of two colours counts.</summary>
    [Fact]
    public void Formats_take_in_what_is_typed_inside_them_and_at_their_end_but_links_do_not_grow()
    {
        var session = new Session();
        var (one, two) = (session.All[0], session.All[1]);
        two.Hear(one.Make(new TextChange([one.Text.InsertionAt(0, "The fox jumped.")], [], []), 1));
        var bold = one.Make(new TextChange([], [], [one.Text.FormatOf(0, 7, Trait.Bold, "1")]), 2);
        var quick = two.Make(new TextChange([two.Text.InsertionAt(4, "quick ")], [], []), 2);
        one.Hear(quick);
        two.Hear(bold);
        Assert.Equal([("The quick fox", "1"), (" jumped.", "")], Looks(one.Text, Trait.Bold));
        Assert.Equal(Of(one.Text), Of(two.Text));
        one.Make(new TextChange([one.Text.InsertionAt(13, "es")], [], []), 3);
        Assert.Equal([("The quick foxes", "1"), (" jumped.", "")], Looks(one.Text, Trait.Bold));
        one.Make(new TextChange([one.Text.InsertionAt(0, "“")], [], []), 3);
        Assert.Equal([("“", ""), ("The quick foxes", "1"), (" jumped.", "")], Looks(one.Text, Trait.Bold));
        one.Make(new TextChange([], [], [one.Text.FormatOf(5, 5, Trait.Link, "https://fox.example")]), 4);
        one.Make(new TextChange([one.Text.InsertionAt(10, "est")], [], []), 5);
        Assert.Equal([("“The ", ""), ("quick", "https://fox.example"), ("est foxes jumped.", "")], Looks(one.Text, Trait.Link));
    }

    [Fact]
    public void Where_two_formats_meet_the_later_counts_and_taken_back_the_earlier_again()
    {
        var session = new Session();
        var (one, two) = (session.All[0], session.All[1]);
        two.Hear(one.Make(new TextChange([one.Text.InsertionAt(0, "abcdef")], [], []), 1));
        var red = one.Make(new TextChange([], [], [one.Text.FormatOf(0, 4, Trait.Colour, "red")]), 2);
        var blue = two.Make(new TextChange([], [], [two.Text.FormatOf(2, 4, Trait.Colour, "blue")]), 3);
        one.Hear(blue);
        two.Hear(red);
        Assert.Equal([("ab", "red"), ("cdef", "blue")], Looks(one.Text, Trait.Colour));
        Assert.Equal(Of(one.Text), Of(two.Text));
        two.Switch(blue.Id, false);
        Assert.Equal([("abcd", "red"), ("ef", "")], Looks(two.Text, Trait.Colour));
    }

    [Fact]
    public void A_paragraph_that_is_parted_stays_as_it_was_in_both_halves_also_where_another_changes_it_meanwhile()
    {
        var session = new Session();
        var (one, two) = (session.All[0], session.All[1]);
        two.Hear(one.Make(new TextChange([one.Text.InsertionAt(0, "first\nsecond\nthird")], [], []), 1));
        var heading = one.Make(new TextChange([], [], [one.Text.FormatOfParagraphs(8, 0, Trait.Style, "heading")]), 2);
        var parted = two.Make(new TextChange([two.Text.InsertionAt(9, "\n")], [], []), 2);
        one.Hear(parted);
        two.Hear(heading);
        Assert.Equal([("first\n", ""), ("sec\nond\n", "heading"), ("third", "")], Looks(one.Text, Trait.Style));
        Assert.Equal(Of(one.Text), Of(two.Text));
        // The last paragraph has a look of its own before anything stands in it.
        one.Make(new TextChange([one.Text.InsertionAt(one.Text.Length, "\n")], [], []), 3);
        one.Make(new TextChange([], [], [one.Text.FormatOfParagraphs(one.Text.Length, 0, Trait.List, "tick")]), 4);
        Assert.Equal("tick", one.Text.EndLook[Trait.List]);
        one.Make(new TextChange([one.Text.InsertionAt(one.Text.Length, "oil")], [], []), 5);
        Assert.Equal([("first\nsec\nond\nthird\n", ""), ("oil", "tick")], Looks(one.Text, Trait.List));
    }

    [Fact]
    public void What_names_letters_that_cannot_be_has_no_effect_and_harms_nothing() =>
        Gen.Select(Steps, Gen.Int[0, 5], Gen.Int[-3, 60], Gen.Int[-3, 60], Gen.Bool)
            .Sample(
                (steps, what, start, count, flag) =>
                {
                    var made = Played(steps).Made;
                    var text = new TypedText();
                    foreach (var taken in made)
                        text.Take(taken.Id, taken.Stamp, taken.Change);
                    var target = made.Count > 0 ? made[0].Id : new OpId(9, 9);
                    var letters = made.Count > 0 ? made[0].Change.Letters : 0;
                    var id = new OpId(77, 1);
                    TextChange change = what switch
                    {
                        0 => new([new Insertion(new LetterId(target, letters + Math.Abs(start)), flag, "x")], [], []),
                        1 => new([new Insertion(LetterId.End, flag, "x")], [], []),
                        2 => new([new Insertion(new LetterId(id, 0), flag, "x")], [], []),
                        3 => new([], [new LetterSpan(target, start, letters - start + 1 + Math.Abs(count))], []),
                        4 => new([new Insertion(LetterId.Start, false, "")], [], []),
                        _ => new(
                            [],
                            [],
                            [
                                new Format(
                                    new Edge(new LetterId(target, -1 - Math.Abs(start)), flag),
                                    new Edge(LetterId.End, true),
                                    Trait.Bold,
                                    "1"
                                ),
                            ]
                        ),
                    };
                    text.Take(id, new Stamp(Hlc.At(5), id), change);
                    Assert.False(text.Holds(id));
                    Assert.Equal(Of(made), Of(text));
                    // What leans on it waits for ever, and can be taken out again.
                    var leaning = new OpId(78, 1);
                    text.Take(
                        leaning,
                        new Stamp(Hlc.At(6), leaning),
                        new TextChange([new Insertion(new LetterId(id, 0), false, "y")], [], [])
                    );
                    text.SetActive(leaning, false);
                    text.Withdraw(id);
                    Assert.Equal(Of(made), Of(text));
                },
                iter: 500
            );

    [Fact]
    public void A_text_laid_down_anew_shows_the_same_and_goes_on_the_same_way() =>
        Steps.Sample(
            steps =>
            {
                var text = Played(steps).All[0].Text;
                var own = new OpId(50, 1);
                var again = new TypedText();
                again.Take(own, new Stamp(Hlc.At(1), own), Passage.Of(text.Paragraphs()).Whole(own));
                Assert.Equal(Shown(text), Shown(again));
                Assert.Null(
                    WritingRules.Check(
                        Passage.Of(text.Paragraphs()).Whole(own) is { Insertions.Count: > 0 } change
                            ? change with
                            {
                                Formats = [],
                            }
                            : new TextChange([], [new LetterSpan(own, 0, 1)], [])
                    )
                );
            },
            iter: 500
        );

    [Fact]
    public void A_piece_laid_into_another_text_keeps_its_looks_and_changes_none_around_it()
    {
        var from = new Session.Device(1);
        from.Make(new TextChange([from.Text.InsertionAt(0, "list\nwith bold\nend")], [], []), 1);
        from.Make(
            new TextChange([], [], [from.Text.FormatOfParagraphs(0, 6, Trait.List, "bullet"), from.Text.FormatOf(10, 4, Trait.Bold, "1")]),
            2
        );
        var into = new Session.Device(2);
        into.Make(new TextChange([into.Text.InsertionAt(0, "before\nafter")], [], []), 3);
        into.Make(new TextChange([], [], [into.Text.FormatOfParagraphs(8, 0, Trait.Style, "heading")]), 4);
        into.Make(Passage.Of(from.Text.Paragraphs()).Into(into.Text, 7, new OpId(2, 3)), 5);
        Assert.Equal("before\nlist\nwith bold\nendafter", into.Text.Text);
        Assert.Equal([("before\nlist\nwith ", ""), ("bold", "1"), ("\nendafter", "")], Looks(into.Text, Trait.Bold));
        Assert.Equal(["", "bullet", "bullet", ""], into.Text.Paragraphs().Select(paragraph => paragraph.Look[Trait.List]));
        Assert.Equal("heading", into.Text.Paragraphs().Last().Look[Trait.Style]);
    }

    /// <summary>Key by key, with the position of each: what one types, removes and makes bold in one go is the same as one operation.</summary>
    [Fact]
    public void What_is_typed_key_by_key_is_one_operation_that_does_the_same() =>
        Gen.Select(Steps, Gen.Select(Gen.Int[0, 3], Gen.Int[0, 1000], Gen.Int[1, 4]).List[1, 40])
            .Sample(
                (steps, keys) =>
                {
                    var session = Played(steps);
                    var device = session.All[0];
                    var id = new OpId(60, 1);
                    var burst = new Burst(device.Text, id, Hlc.At(50_000));
                    var wanted = device.Text.Text;
                    foreach (var (what, where, much) in keys)
                    {
                        var at = where % (wanted.Length + 1);
                        var count = Math.Min(much, wanted.Length - at);
                        switch (what)
                        {
                            case 0 when count > 0:
                                burst.Remove(at, count);
                                wanted = wanted.Remove(at, count);
                                break;
                            case 1 when count > 0:
                                burst.Add(device.Text.FormatOf(at, count, Trait.Italic, much % 2 == 0 ? "1" : ""));
                                break;
                            default:
                                burst.Type(at, new string('k', much));
                                wanted = wanted.Insert(at, new string('k', much));
                                break;
                        }

                        Assert.Equal(wanted, device.Text.Text);
                    }

                    var shown = Of(device.Text);
                    burst.End();
                    Assert.Equal(Of(device.Known), Of(device.Text));
                    if (burst.IsEmpty)
                        return;
                    Assert.Null(WritingRules.Check(burst.Change));
                    device.Hear(new Taken(id, new Stamp(Hlc.At(50_000), id), burst.Change));
                    Assert.Equal(shown, Of(device.Text));
                    Assert.Equal(Of(device.Known), Of(device.Text));
                },
                iter: 500
            );

    [Fact]
    public void A_slip_that_is_mended_at_once_never_was()
    {
        var text = new TypedText();
        var id = new OpId(1, 1);
        var burst = new Burst(text, id, Hlc.At(1));
        foreach (var (letter, place) in "penduk".Select((letter, place) => (letter, place)))
            burst.Type(place, letter.ToString());
        burst.Remove(5, 1);
        burst.Type(5, "lum");
        Assert.Equal([new Insertion(LetterId.Start, false, "pendulum")], burst.Change.Insertions);
        Assert.Empty(burst.Change.Removals);
        burst.Remove(0, 8);
        Assert.True(burst.IsEmpty);
        Assert.Equal("", text.Text);
    }

    [Fact]
    public void What_no_text_may_hold_is_refused_in_a_sentence()
    {
        var letter = new LetterId(new OpId(1, 1), 0);
        Assert.NotNull(WritingRules.Check(new TextChange([], [], [])));
        Assert.NotNull(WritingRules.Check(new TextChange([new Insertion(LetterId.Start, false, "")], [], [])));
        Assert.NotNull(WritingRules.Check(new TextChange([new Insertion(LetterId.Start, true, "a")], [], [])));
        Assert.NotNull(WritingRules.Check(new TextChange([new Insertion(LetterId.End, true, "a")], [], [])));
        Assert.NotNull(WritingRules.Check(new TextChange([new Insertion(letter, true, "a\rb")], [], [])));
        Assert.NotNull(
            WritingRules.Check(new TextChange([new Insertion(letter, true, new string('a', WritingRules.MostLetters + 1))], [], []))
        );
        Assert.NotNull(WritingRules.Check(new TextChange([], [new LetterSpan(letter.Operation, 0, 0)], [])));
        Assert.NotNull(WritingRules.Check(new TextChange([], [new LetterSpan(letter.Operation, -1, 2)], [])));
        Assert.NotNull(WritingRules.Check(new TextChange([], [new LetterSpan(letter.Operation, 5, int.MaxValue)], [])));
        Assert.NotNull(Said((Trait)200, "1"));
        Assert.NotNull(Said(Trait.Size, "39"));
        Assert.NotNull(Said(Trait.Family, "wing"));
        Assert.NotNull(Said(Trait.Link, "javascript:alert(1)"));
        Assert.NotNull(Said(Trait.Colour, "red"));
        Assert.Null(Said(Trait.Link, "https://clocks.example/pendulum"));
        Assert.Null(Said(Trait.Size, "125"));
        Assert.Null(Said(Trait.Bold, ""));
        Assert.Equal(Enum.GetValues<Trait>().Order(), WritingRules.Traits.Keys.Order());

        Refusal? Said(Trait trait, string value) =>
            WritingRules.Check(new TextChange([], [], [new Format(new Edge(letter, false), new Edge(LetterId.End, true), trait, value)]));
    }

    [Fact]
    public void Much_that_is_typed_at_one_letter_and_a_long_chain_of_letters_cost_no_depth()
    {
        var text = new TypedText();
        for (ulong i = 1; i <= 20_000; i++)
        {
            // Every second at the very beginning, the others each before the one before.
            var id = new OpId(i, 1);
            var insertion =
                i % 2 == 0 ? new Insertion(LetterId.Start, false, "s")
                : i == 1 ? new Insertion(LetterId.Start, false, "e")
                : new Insertion(new LetterId(new OpId(i - 2, 1), 0), true, "b");
            text.Take(id, new Stamp(Hlc.At(1), id), new TextChange([insertion], [], []));
        }

        Assert.Equal(20_000, text.Length);
        Assert.Equal(new string('b', 9_999) + "e" + new string('s', 10_000), text.Text);
    }

    /// <summary>Each paragraph with its look, letter by letter.</summary>
    private static List<string> Shown(TypedText text) =>
        [
            .. text.Paragraphs()
                .Select(paragraph =>
                    string.Join(
                        '|',
                        paragraph
                            .Spans.SelectMany(span => span.Text.Select(letter => $"{letter} {Words(span.Look, false)}"))
                            .Prepend(Words(paragraph.Look, true))
                    )
                ),
        ];

    private static string Words(Look look, bool ofParagraphs) =>
        string.Join(
            ' ',
            look.Values.Where(value => value.Key.IsOfParagraphs() == ofParagraphs).Select(value => $"{value.Key}={value.Value}")
        );

    [Fact]
    public void A_format_that_ends_before_it_begins_reaches_over_nothing_in_any_order()
    {
        var device = new Session.Device(1);
        device.Make(new TextChange([device.Text.InsertionAt(0, "abc")], [], []), 1);
        device.Make(
            new TextChange([], [], [new Format(new Edge(device.Text.At(2), false), new Edge(device.Text.At(0), true), Trait.Bold, "1")]),
            2
        );
        device.Make(new TextChange([device.Text.InsertionAt(1, "xyz")], [], []), 3);
        Assert.Equal([("axyzbc", "")], Looks(device.Text, Trait.Bold));
    }

    private static List<(string Text, string Value)> Looks(TypedText text, Trait trait)
    {
        var looks = new List<(string Text, string Value)>();
        foreach (var span in text.Spans())
        {
            if (looks.Count > 0 && looks[^1].Value == span.Look[trait])
                looks[^1] = (looks[^1].Text + span.Text, looks[^1].Value);
            else
                looks.Add((span.Text, span.Look[trait]));
        }

        return looks;
    }
}
