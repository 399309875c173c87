namespace CalmQuill.Core.Operations;

/// <summary>The registers that <see cref="Change.PropertySet"/> writes. The numbers are part of the stored form and are never used again.</summary>
public enum Property : byte
{
    /// <summary>Name of a folder, notebook, section, tag or lens, or title of a page: one line, at most 200 characters.</summary>
    Name = 1,

    /// <summary>Colour of a folder, cover, section or tag: one of the names of the palette.</summary>
    Colour = 2,

    /// <summary>Pattern of a notebook's cover.</summary>
    Cover = 3,

    /// <summary>Empty, or the UTC time in milliseconds since 1970 at which it was put into the bin.</summary>
    Binned = 4,

    /// <summary>The paper of a page, or with the notebook as target the paper of new pages.</summary>
    Paper = 6,

    /// <summary>Icon of a folder or lens: a short name.</summary>
    Icon = 7,

    /// <summary>“1” while a notebook is pinned to the top of its folder.</summary>
    Pinned = 8,

    /// <summary>“1” while a notebook waits under Jots to be filed.</summary>
    Jot = 9,

    /// <summary>Empty, or the tag that this tag was merged into.</summary>
    MergedInto = 10,

    /// <summary>The rule of a lens, as the JSON of <see cref="Lenses.RuleJson"/>.</summary>
    Rule = 11,

    /// <summary>Empty, or the time at which it was erased from the bin. Erased things are no longer shown anywhere.</summary>
    Erased = 12,

    /// <summary>Personal library, with anything as target: “1” while the person has it starred.</summary>
    Starred = 13,

    /// <summary>Personal library, with a folder or list as target: how the person looks at it.</summary>
    View = 14,

    /// <summary>Personal library: paper, colour and pen of jots.</summary>
    JotPreset = 15,

    /// <summary>Personal library: where and on what today's page is made.</summary>
    TodayPreset = 16,

    /// <summary>Library: for how many days the bin keeps things; 0 keeps them for ever.</summary>
    BinDays = 17,

    /// <summary>Library: the terms, as first and last days: <c>2026-09-07/2026-12-18</c>, several parted by spaces.</summary>
    Terms = 18,

    /// <summary>Personal library: the space whose things a lens asks for; empty where the lens lies in that space itself.</summary>
    LensSpace = 19,

    /// <summary>Notebook: empty, or the notebook to which this page or section was moved.</summary>
    MovedTo = 20,

    /// <summary>On a planner: its <see cref="Planner.PlannerSettings"/>; on one of its pages: which <see cref="Planner.PlannerPage"/> it is.</summary>
    Planner = 21,

    /// <summary>Notebook, with the id of a calendar’s entry as target: the <see cref="Planner.CalendarEntry"/>.</summary>
    Entry = 22,

    /// <summary>Notebook, with itself as target: how its pages follow each other: <c>sideways</c>, <c>down</c> or <c>seamless</c>.</summary>
    Turning = 23,

    /// <summary>Library, on a paper of one's own: the asset that lies under the page; on a notebook: the picture on its cover.</summary>
    Source = 24,

    /// <summary>Library, on a paper of one's own: among which it stands.</summary>
    Category = 25,

    /// <summary>Personal library, with a page as target: the notebook it is in while the person has a bookmark on it.</summary>
    Bookmarked = 26,

    /// <summary>Personal library: the pens of the tray; with a notebook as target, of the tray for that notebook alone.</summary>
    Tray = 27,

    /// <summary>Personal library: palettes and the colours used last.</summary>
    Palettes = 28,

    /// <summary>Personal library: what pen and finger do.</summary>
    Habits = 29,

    /// <summary>Personal library, with a page as target: where the page is that the person's aside lies over, and what it is called, as JSON.</summary>
    Aside = 30,

    /// <summary>Personal library: up to when the person has seen what was said to them, UTC milliseconds.</summary>
    Told = 31,

    /// <summary>Notebook, with a fresh id as target: a <see cref="History.Moment"/> that somebody gave a name; empty when the name is taken off.</summary>
    Moment = 32,
}
