using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Planner;

namespace CalmQuill.Documents;

/// <summary>A page as it is put on paper or into a picture: its ink, its paper with the dates on it, and what lies under it.</summary>
/// <param name="Page">What is written on it.</param>
/// <param name="Paper">Its paper.</param>
/// <param name="Title">Its title; may be empty.</param>
public sealed record PrintedPage(PageDocument Page, Paper Paper, string Title)
{
    /// <summary>The page's id, for links between pages.</summary>
    public Guid Id { get; init; }

    /// <summary>Its number in the notebook; 0 where it stands alone.</summary>
    public int Number { get; init; }

    /// <summary>The sections, and the pages, that it lies in, from the outermost; their ids and titles.</summary>
    public IReadOnlyList<(Guid Id, string Title)> Above { get; init; } = [];

    /// <summary>What it is called in words: its title, else its number.</summary>
    public string Called => Title.Length > 0 ? Title : $"Page {Math.Max(1, Number)}";

    /// <summary>The dates of a planner's page.</summary>
    public PlannerPrint? PlannerPrint { get; init; }

    /// <summary>The paper of one's own that lies under it; null for none.</summary>
    public Background? Under { get; init; }

    /// <summary>The files of the pictures on it, by their ids; one that is not there is shown as an empty frame.</summary>
    public IReadOnlyDictionary<Guid, byte[]> Pictures { get; init; } = new Dictionary<Guid, byte[]>();

    /// <summary>Whether a picture is shown on it whose file is not there.</summary>
    public bool LacksPictures =>
        Written.Any(item => item is { Shown: true, Content: PictureContent picture } && !Pictures.ContainsKey(picture.Shown.Asset));

    /// <summary>How finely pictures are put on paper, dots an inch.</summary>
    public int DotsAnInch { get; init; } = 300;

    /// <summary>The same for 0.01 mm.</summary>
    internal double Dots => DotsAnInch / 2540.0;

    /// <summary>The person's own aside of it, drawn over the page; null for none.</summary>
    public PageDocument? Aside { get; init; }

    /// <summary>All that is written on it, in the order in which it is painted.</summary>
    public IEnumerable<PageItem> Written => Page.Items.Concat(Aside?.Items ?? []);

    /// <summary>The most characters that one sheet or picture may come to.</summary>
    private const int MostCharacters = 120_000_000;

    /// <summary>Nobody waits for it any more, or it takes too long.</summary>
    public CancellationToken Cancel { get; init; }

    /// <summary>Asked at every item that is drawn, so that a page with very much on it can be given up and ends somewhere.</summary>
    /// <param name="written">How many characters it comes to so far.</param>
    /// <exception cref="PrintBudgetException">It comes to more than may be.</exception>
    internal void Check(int written)
    {
        Cancel.ThrowIfCancellationRequested();
        if (written > MostCharacters)
            throw new PrintBudgetException($"There is too much on this page to be printed or shown as a whole.");
    }

    public Box Sheet => Paper.Sheet(Paper.Growth == Growth.None ? null : Whole());

    private Box? Whole() =>
        (Page.Bounds(), Aside?.Bounds()) switch
        {
            ({ } page, { } aside) => page.With(aside),
            var (page, aside) => page ?? aside,
        };

    public Drawing Draw() => Draw(Sheet);

    /// <param name="sheet">Where the sheet lies.</param>
    public Drawing Draw(Box sheet) => Paper.Draw(sheet, PlannerPrint);
}
