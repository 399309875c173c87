using CalmQuill.CalendarFeed;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Planner;
using CalmQuill.Documents;
using CalmQuill.Documents.Calendars;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;

namespace CalmQuill.Demo.Scenario;

/// <summary>The group's term planner with its calendar, and its own paper made of a page.</summary>
public sealed class WorkshopPapers(DocumentStore documents, AssetStore assets, Guid group, Guid person, Random random, DateTimeOffset now)
{
    private static readonly Dictionary<PlannerKind, string> Papers = new()
    {
        [PlannerKind.Year] = "a4-year-710",
        [PlannerKind.Term] = "a4-term-710",
        [PlannerKind.Month] = "a4.across-month-710",
        [PlannerKind.Week] = "a4.across-week-710",
        [PlannerKind.Day] = "a4-day-710",
        [PlannerKind.Notes] = "a4-ruled-710",
    };

    /// <param name="notebooks">The group's notebooks by name.</param>
    /// <param name="model">The page that becomes a paper.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task LayOut(Dictionary<string, Guid> notebooks, Guid model, CancellationToken cancel)
    {
        var device = new Replica((ulong)random.NextInt64(), person);
        var at = now.AddDays(-20).ToUnixTimeMilliseconds();
        var library = new List<Operation>();
        void Do(Change change) => library.Add(device.Make(change, at));

        var planner = NewId();
        Do(new Change.PropertySet(planner, Property.Name, "Term planner"));
        Do(new Change.NodePlaced(planner, NodeKind.Notebook, Guid.Empty, OrderKey.Between("8", null, (ulong)random.NextInt64())));
        Do(new Change.PropertySet(planner, Property.Colour, "sky"));
        Do(new Change.PropertySet(planner, Property.Cover, "steps"));
        await MakePlanner(planner, device, at, cancel);
        notebooks["Term planner"] = planner;

        var page = await documents.Page(group, model, cancel);
        var frozen = FrozenPage.Write(page, "a4-repair-710");
        var asset = new Asset(AssetId.Of(frozen), group, FrozenPage.MediaType, 21000, 29700, frozen, person);
        await assets.Add(asset, cancel);
        var paper = NewId();
        Do(new Change.PropertySet(paper, Property.Name, "Repair sheet, as filled in for slate clocks"));
        Do(new Change.NodePlaced(paper, NodeKind.Paper, Guid.Empty, OrderKey.Between("8", null, (ulong)random.NextInt64())));
        Do(new Change.PropertySet(paper, Property.Source, asset.Id.ToString()));
        Do(new Change.PropertySet(paper, Property.Category, "Workshop"));
        await documents.Append(new DocumentRef(group, DocumentKind.Library, group), library, cancel);
        await AddPageOn(paper, notebooks["Repair sheets"], device, at, cancel);
    }

    private async Task MakePlanner(Guid planner, Replica device, long at, CancellationToken cancel)
    {
        var today = DateOnly.FromDateTime(now.LocalDateTime);
        var first = new DateOnly(today.Year, today.Month, 1);
        var settings = new PlannerSettings(
            first,
            first.AddMonths(4).AddDays(-1),
            DayOfWeek.Monday,
            [PlannerKind.Year, PlannerKind.Term, PlannerKind.Month, PlannerKind.Week, PlannerKind.Day, PlannerKind.Notes],
            CalendarNames.English
        );
        var calendar = CalendarFile
            .Read(LanternCalendar.Write(today, changed: false), settings.First, settings.Last, "UTC", cancel)
            .Content!;
        var changes = PlannerPlan
            .Make(planner, settings, Papers, ["sky", "spruce", "madder", "gold", "lichen", "plum"], NewId, (ulong)random.NextInt64())
            .Concat(PlannerPlan.Update([], calendar.Entries));
        await documents.Append(
            new DocumentRef(group, DocumentKind.Notebook, planner),
            [.. changes.Select(change => device.Make(change, at))],
            cancel
        );
    }

    private async Task AddPageOn(Guid paper, Guid notebook, Replica device, long at, CancellationToken cancel)
    {
        var document = await documents.Notebook(group, notebook, cancel);
        var page = NewId();
        await documents.Append(
            new DocumentRef(group, DocumentKind.Notebook, notebook),
            [
                device.Make(
                    new Change.PageAdded(
                        page,
                        OrderKey.Between(document.Pages()[^1].Order, null, (ulong)random.NextInt64()),
                        $"a4-blank-710-own.{paper:N}"
                    ),
                    at
                ),
                device.Make(new Change.PropertySet(page, Property.Name, "Mantel clock no. 23"), at),
            ],
            cancel
        );
    }

    private Guid NewId() => random.NextId();
}
