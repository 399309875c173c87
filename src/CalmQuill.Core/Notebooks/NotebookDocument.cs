using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Notebooks;

/// <summary>A notebook: its pages in order, with title and paper. What is written on them is each page's own document.</summary>
public sealed class NotebookDocument
{
    private readonly Dictionary<OpId, Operation> operations = [];
    private readonly HashSet<Guid> pages = [];
    private readonly Registers registers = new();

    public int OperationCount => operations.Count;

    /// <summary>Takes an operation in. False when it was here already, or does not belong in a notebook.</summary>
    public bool Apply(Operation operation)
    {
        if (operation.Change.Kind is not (ChangeKind.PageAdded or ChangeKind.PropertySet) || !operations.TryAdd(operation.Id, operation)) return false;
        switch (operation.Change)
        {
            case Change.PageAdded added:
                pages.Add(added.Page);
                registers.Write(added.Page, Property.Order, operation.Stamp, added.Order);
                registers.Write(added.Page, Property.Paper, operation.Stamp, added.Paper);
                break;
            case Change.PropertySet set:
                registers.Write(set.Target, set.Property, operation.Stamp, set.Value);
                break;
        }

        return true;
    }

    /// <summary>The pages in order. Binned ones are left out unless asked for.</summary>
    public List<NotebookPage> Pages(bool withBinned = false) =>
        [.. pages.Select(Page).Where(page => withBinned || page.BinnedAt is null).OrderBy(page => page.Order, StringComparer.Ordinal).ThenBy(page => page.Id)];

    public NotebookPage Page(Guid id) => new(
        id,
        registers.Read(id, Property.Order),
        registers.Read(id, Property.Name),
        registers.Read(id, Property.Paper),
        long.TryParse(registers.Read(id, Property.Binned), out var at) ? at : null);

    public List<Operation> Operations() => [.. operations.Values.OrderBy(operation => operation.Stamp)];

    /// <summary>What the notebook holds, as bytes: equal for equal sets of operations.</summary>
    public byte[] EncodeState()
    {
        var writer = new ByteWriter(1024);
        foreach (var page in pages.Order()) writer.Guid(page);
        registers.Write(writer);
        return writer.ToArray();
    }
}
