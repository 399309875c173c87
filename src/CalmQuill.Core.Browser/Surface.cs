using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Browser;

/// <summary>What shows a page: the items that changed and wait to be handed out to it, and which outlines it has.</summary>
internal sealed class Surface
{
    private readonly Dictionary<OpId, OutlineKey> has = [];
    private readonly Dictionary<OpId, (IReadOnlyList<LaidText> Texts, uint? Fade)> letters = [];

    public Queue<OpId> Waiting { get; } = [];

    /// <summary>The next that wait and are there, so many at most.</summary>
    public List<OpId> Take(int most, Predicate<OpId> isThere)
    {
        var taken = new List<OpId>();
        while (taken.Count < most && Waiting.TryDequeue(out var id))
        {
            if (isThere(id))
                taken.Add(id);
        }

        return taken;
    }

    /// <summary>The surface is painted with the item as it stands.</summary>
    /// <remarks>Its letters are handed out again: paragraphs have other numbers than those under which they were painted then.</remarks>
    public void Shows(PageItem item) => has[item.Id] = item.Content.OutlineKey;

    /// <summary>Whether the surface has the item's outline already, so that only its place and colours need be said; it has it from now on.</summary>
    /// <param name="item">The item.</param>
    /// <param name="visible">What of it is painted.</param>
    public bool Has(PageItem item, List<Interval> visible)
    {
        if (!item.Shown || visible.Count == 0)
        {
            // What is not shown is forgotten there too.
            Forget(item.Id);
            return false;
        }

        var key = item.Content.OutlineKey;
        if (has.TryGetValue(item.Id, out var before) && before == key)
            return true;
        has[item.Id] = key;
        return false;
    }

    /// <summary>What is not known to be there any more, as while it is being rubbed out.</summary>
    public void Forget(OpId item)
    {
        has.Remove(item);
        letters.Remove(item);
    }

    /// <summary>The texts of a thing as the surface has them; none where it does not, or all of them look otherwise now. From now on it has those that are given.</summary>
    /// <param name="item">The thing.</param>
    /// <param name="texts">Its texts now.</param>
    /// <param name="fade">What is left of a colour that covers all; null where they have other colours than their own.</param>
    public IReadOnlyList<LaidText> HasLetters(OpId item, IReadOnlyList<LaidText> texts, uint? fade)
    {
        var (before, faded) = letters.GetValueOrDefault(item, ([], fade));
        letters[item] = (texts, fade);
        return fade is not null && faded == fade ? before : [];
    }
}
