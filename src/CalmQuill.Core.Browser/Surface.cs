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
    private readonly Dictionary<OpId, HashSet<SetParagraph>> letters = [];

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
    public void Shows(PageItem item)
    {
        has[item.Id] = item.Content.OutlineKey;
        if (item.Content is WrittenContent text)
            HasLetters(item.Id, text.Texts(false).Select(one => one.Set));
    }

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

    /// <summary>The paragraphs of a thing's texts that the surface has; from now on it has those that are given in their place.</summary>
    public IReadOnlySet<SetParagraph> HasLetters(OpId item, IEnumerable<SetText> texts)
    {
        var before = letters.GetValueOrDefault(item, []);
        letters[item] = [.. texts.SelectMany(text => text.Paragraphs).Select(one => one.Paragraph)];
        return before;
    }
}
