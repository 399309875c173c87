using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>What people say to a mark: readers too, in its order, by itself and apart from the steps on the page.</summary>
public sealed class AnswerTests
{
    private static readonly Guid Mark = Generate.Node(1);

    private readonly Replica ines = new(1, Generate.People[0]),
        maren = new(2, Generate.People[1]);
    private readonly PageDocument page = new();
    private long now = 1_790_000_000_000;

    private Spot Shown => Assert.Single(page.Spots());

    [Fact]
    public void A_mark_is_answered_by_another_and_not_by_who_put_it_there()
    {
        Ask();
        Do(ines, Says("Is it the recoil?"));
        Assert.False(Shown.IsAnswered);
        var answer = Do(maren, Says("It is. See the exit pallet.", ines.Author));
        Assert.True(Shown.IsAnswered);
        Assert.Equal(["Is it the recoil?", "It is. See the exit pallet."], Shown.Answers.Select(one => one.Text));
        Assert.Equal([ines.Author], Shown.Answers[1].Mentions);
        Assert.True(Shown.IsOpen);
        Do(maren, new Change.AnswerWithdrawn(answer));
        Assert.False(Shown.IsAnswered);
        Assert.Single(Shown.Answers);
    }

    [Fact]
    public void Answering_is_no_step_of_the_page_and_cannot_be_switched_off_by_undo()
    {
        var ask = Ask();
        var answer = Do(ines, Says("Because of the friction."));
        Assert.Equal([new Change.EffectSet(ask, false)], page.Undo(ines.Author));
        Do(ines, new Change.EffectSet(answer, false));
        Assert.Single(Shown.Answers);
    }

    [Fact]
    public void In_whatever_order_they_come_the_same_stands() =>
        Gen.Select(Gen.Int[0, 1].Array[1, 8], Gen.Int)
            .Sample(
                (who, seed) =>
                {
                    Replica[] devices = [new(1, Generate.People[0]), new(2, Generate.People[1])];
                    List<Operation> made = [devices[0].Make(AskChange(), 1_790_000_000_000)];
                    foreach (var one in who)
                        made.Add(devices[one].Make(Says($"{made.Count}"), 1_790_000_000_000 + made.Count * 50 - one * 120));
                    made.Add(devices[0].Make(new Change.AnswerWithdrawn(made[1].Id), 1_790_000_000_900));
                    PageDocument one1 = new(),
                        other = new();
                    foreach (var operation in made)
                        one1.Apply(operation);
                    foreach (var operation in made.OrderBy(operation => HashCode.Combine(seed, operation.Id)).Concat(made))
                        other.Apply(operation);
                    Assert.Equal(one1.EncodeState(), other.EncodeState());
                    Assert.Equal(who.Length - 1, Assert.Single(other.Spots()).Answers.Count);
                }
            );

    [Fact]
    public void Whoever_reads_may_answer_and_do_nothing_else()
    {
        Assert.Null(Refused(Says("I think so too."), Role.Reader));
        Assert.Null(Refused(new Change.AnswerWithdrawn(new OpId(1, 1)), Role.Reader));
        Assert.Equal(Refusal.NotAllowedCode, Refused(AskChange(), Role.Reader));
        Assert.Equal(Refusal.NotAllowedCode, Refused(new Change.EffectSet(new OpId(1, 1), false), Role.Reader));
        Assert.Equal(Refusal.NotAllowedCode, Refused(Says("Hello"), Role.None));
        Assert.Equal("wrong-document", Refused(Says("Hello"), Role.Owner, DocumentKind.Aside));
        Assert.Equal("wrong-document", Refused(Says("Hello"), Role.Owner, DocumentKind.Notebook));
    }

    [Fact]
    public void What_is_no_answer_is_refused_with_its_reason()
    {
        var stroke = new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0x1F3D3AFF), now, Generate.Wave(4));
        Assert.Null(Refused(Inked(stroke)));
        Assert.Equal("empty", Refused(Says(" \n ")));
        Assert.Equal("bad-value", Refused(Says(new string('x', AnswerRules.MostText + 1))));
        Assert.Equal("bad-id", Refused(new Change.AnswerAdded(Guid.Empty, "x", [], default)));
        Assert.Equal("bad-id", Refused(Says("x", Guid.Empty)));
        Assert.Equal("bad-value", Refused(Says("x", Generate.People[0], Generate.People[0])));
        Assert.Equal("bad-text", Refused(Says("bell\a")));
        Assert.Equal("bad-value", Refused(new Change.AnswerAdded(Mark, "", [], new byte[] { 7, 7, 7 })));
        Assert.Equal("bad-value", Refused(Inked(new Change.ItemsRemoved([new OpId(1, 1)]))));
        Assert.Equal("bad-value", Refused(Inked(Says("an answer in an answer"))));
        Assert.Equal("too-many", Refused(new Change.AnswerAdded(Mark, "", [], new byte[AnswerRules.MostInk + 1])));
        Assert.NotNull(Refused(Inked(stroke with { Pen = stroke.Pen with { Width = -1 } })));
        Assert.Equal("too-many", Refused(Inked([.. Enumerable.Repeat<Change>(stroke, AnswerRules.MostStrokes + 1)])));
    }

    private static Change.AnswerAdded Inked(params Change[] changes) =>
        new(
            Mark,
            "",
            [],
            OperationCodec.Encode([
                .. changes.Select((change, i) => new Operation(new OpId(1, (ulong)i + 1), Hlc.At(i + 1), Guid.Empty, change)),
            ])
        );

    private string? Refused(Change change, Role role = Role.Writer, DocumentKind kind = DocumentKind.Page) =>
        OperationRules.Check(ines.Make(change, now), kind, role, ines.Author, now)?.Code;

    private static Change.SpotAdded AskChange() =>
        new(Mark, SpotKind.Mark, new Box(0, 0, 400, 400), [], [new SpotValue(SpotField.Mark, MarkKinds.Ask)]);

    private static Change.AnswerAdded Says(string text, params Guid[] to) => new(Mark, text, to, ReadOnlyMemory<byte>.Empty);

    private OpId Ask() => Do(ines, AskChange());

    private OpId Do(Replica who, Change change)
    {
        var operation = who.Make(change, now += 1_000);
        Assert.True(page.Apply(operation));
        return operation.Id;
    }
}
