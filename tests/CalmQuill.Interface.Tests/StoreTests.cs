using System.Text.Json;
using CalmQuill.Testing;

namespace CalmQuill.Interface.Tests;

/// <summary>
/// The device's store alone, in a real browser: every step is one transaction that looks at what is there, so that no tab that lags, and no answer that comes late or
/// twice, takes anything away. Each test is what two tabs could do to each other.
/// </summary>
public sealed class StoreTests(StoreTests.OnePage shared) : IClassFixture<StoreTests.OnePage>
{
    /// <summary>The page that all the stores are opened in, each under a name of its own; every test has it anew.</summary>
    public sealed class OnePage : IAsyncLifetime
    {
        private QuillHost host = null!;

        public Browser Browser { get; private set; } = null!;

        public async Task InitializeAsync()
        {
            host = await QuillHost.Start(Path.Combine(Repository.Root, "src/web/dist-torture"));
            Browser = new Browser(host.Address);
        }

        public async Task DisposeAsync()
        {
            Browser.Dispose();
            await host.DisposeAsync();
        }
    }

    [Fact]
    public void A_document_is_complete_to_where_its_batches_are_whatever_came_first() =>
        Same(
            """
            await store.keep(page, 5, 7, bytes(5, 6, 7));
            const gap = await store.peek(page);
            await store.keep(page, 1, 2, bytes(1, 2));
            const less = await store.peek(page);
            await store.keep(page, 3, 4, bytes(3, 4));
            const whole = await store.peek(page);
            return [gap.reached.complete, gap.reached.furthest, less.reached.complete, whole.reached.complete, held(whole)];
            """,
            "[0,7,2,7,[1,2,3,4,5,6,7]]"
        );

    [Fact]
    public void A_hole_that_was_left_for_want_of_room_stays_one_until_it_is_filled() =>
        Same(
            """
            await store.keep(page, 1, 2, bytes(1, 2));
            const put = IDBObjectStore.prototype.put;
            IDBObjectStore.prototype.put = () => { throw new DOMException('full', 'QuotaExceededError'); };
            const failed = await store.keep(page, 3, 4, bytes(3, 4)).then(() => 'kept', (problem) => problem.name);
            IDBObjectStore.prototype.put = put;
            await store.keep(page, 5, 5, bytes(5));
            const { reached } = await store.peek(page);
            return [failed, reached.complete, reached.furthest];
            """,
            """["QuotaExceededError",2,5]"""
        );

    [Fact]
    public void A_shorter_batch_takes_nothing_of_a_longer_one_and_a_longer_one_takes_the_shorter_in() =>
        Same(
            """
            await store.keep(page, 1, 3, bytes(1, 2, 3));
            await store.keep(page, 5, 9, bytes(5, 6, 7, 8, 9));
            // What this device made itself comes back alone, under the number at which the other tab's batch begins.
            await store.markStored(page, [{ waiting: row(5), sequence: 5 }]);
            const kept = held(await store.peek(page));
            await store.keep(page, 4, 9, bytes(4, 5, 6, 7, 8, 9));
            const { rows, reached } = await store.peek(page);
            return [kept, rows, reached.complete];
            """,
            "[[1,2,3,5,6,7,8,9],2,9]"
        );

    [Fact]
    public void The_snapshot_of_a_tab_that_lags_leaves_what_came_later() =>
        Same(
            """
            await store.keep(page, 1, 2, bytes(1, 2));
            const lagging = await store.load(page);
            await store.keep(page, 3, 4, bytes(3, 4));
            await store.keep(page, 6, 6, bytes(6));
            const done = await store.compact(page, bytes(1, 2), 2, lagging.generation);
            const after = await store.peek(page);
            return [done, held(after), after.reached.complete, after.reached.furthest];
            """,
            "[true,[1,2,3,4,6],4,6]"
        );

    [Fact]
    public void A_snapshot_is_not_kept_while_something_waits_or_was_refused_or_taken_back_since() =>
        Same(
            """
            await store.keep(page, 1, 2, bytes(1, 2));
            const { generation } = await store.load(page);
            await store.addToOutbox([row(90)]);
            const waiting = await store.compact(page, bytes(1, 2, 90), 2, generation);
            const [waits] = await store.outbox();
            await store.markRefused([{ waiting: waits, sentence: 'No.' }]);
            const refused = await store.compact(page, bytes(1, 2, 90), 2, generation + 1);
            await store.dropRefused(await store.refused());
            const before = await store.compact(page, bytes(1, 2, 90), 2, generation);
            const now = await store.compact(page, bytes(1, 2), 2, generation + 1);
            return [waiting, refused, before, now, held(await store.peek(page))];
            """,
            "[false,false,false,true,[1,2]]"
        );

    [Fact]
    public void What_waits_becomes_what_is_stored_in_one_step_or_not_at_all() =>
        Same(
            """
            await store.addToOutbox([row(10), row(11)]);
            const rows = await store.outbox();
            const remove = IDBObjectStore.prototype.delete;
            IDBObjectStore.prototype.delete = function (...given) {
              if (this.name === 'outbox') this.transaction.abort();
              return remove.apply(this, given);
            };
            const failed = await store.markStored(page, rows.map((waiting, i) => ({ waiting, sequence: i + 1 }))).then(() => 'done', () => 'failed');
            IDBObjectStore.prototype.delete = remove;
            const half = await store.peek(page);
            await store.markStored(page, rows.map((waiting, i) => ({ waiting, sequence: i + 1 })));
            const whole = await store.peek(page);
            return [failed, half.rows, (half.batches).length, whole.rows, whole.reached.complete, (await store.outbox()).length];
            """,
            """["failed",0,2,2,2,0]"""
        );

    [Fact]
    public void What_a_tab_left_is_taken_over_once_though_the_browser_gives_up_some_transactions() =>
        Same(
            """
            await store.addToOutbox([row(10)]);
            givingUp(3);
            await torture.takeOver(store, [row(10), row(11), row(12)]);
            const taken = held(await store.peek(page));
            // Where none succeeds it is told, so that what was left stays where it is.
            givingUp(Infinity);
            const told = await torture.takeOver(store, [row(13)]).then(() => '', (problem) => problem.name);
            return [taken, told, held(await store.peek(page))];
            """,
            """[[10,11,12],"AbortError",[10,11,12]]"""
        );

    [Fact]
    public void A_page_that_was_taken_off_opens_though_the_browser_gives_up_some_transactions() =>
        Same(
            """
            await store.keep(page, 1, 1, bytes(1));
            await store.forget([page]);
            givingUp(2);
            await store.load(page);
            await store.keep(page, 1, 2, bytes(1, 2));
            return held(await store.peek(page));
            """,
            "[1,2]"
        );

    [Fact]
    public void What_was_refused_leaves_the_page_and_comes_back_behind_all_that_waits() =>
        Same(
            """
            await store.addToOutbox([row(10), row(11)]);
            const [first] = await store.outbox();
            await store.markRefused([{ waiting: first, sentence: 'Too far.' }]);
            const without = held(await store.peek(page));
            await store.addToOutbox([row(12)]);
            const refused = await store.refused();
            await store.putBack(refused);
            return [without, refused.map((one) => one.sentence), held(await store.peek(page)), (await store.refused()).length];
            """,
            """[[11],["Too far."],[11,12,10],0]"""
        );

    [Fact]
    public void What_was_in_memory_alone_and_is_refused_is_kept_with_the_refused() =>
        Same(
            """
            await store.markRefused([{ waiting: row(10), sentence: 'No.' }, { waiting: row(11), sentence: 'No.' }]);
            return [(await store.refused()).map((one) => one.bytes[0]), (await store.outbox()).length];
            """,
            "[[10,11],0]"
        );

    [Fact]
    public void What_was_sent_in_the_meantime_is_not_put_back_when_it_is_stamped_anew() =>
        Same(
            """
            await store.addToOutbox([row(10), row(11)]);
            const rows = await store.outbox();
            await store.markStored(page, [{ waiting: rows[0], sequence: 1 }]);
            await store.replaceWaiting(rows.map((one) => ({ ...one, bytes: bytes(one.bytes[0] + 100) })));
            return [(await store.outbox()).map((one) => one.bytes[0]), held(await store.peek(page))];
            """,
            "[[111],[10,111]]"
        );

    [Fact]
    public void What_was_forgotten_is_not_kept_by_a_tab_that_has_it_open_still_until_it_is_opened_again() =>
        Same(
            """
            await store.keep(page, 1, 2, bytes(1, 2));
            await store.addToOutbox([row(50)]);
            await store.forget([page]);
            await store.keep(page, 3, 3, bytes(3));
            const done = await store.compact(page, bytes(1, 2, 3), 3, 1);
            const painted = await store.keepOutlines({ id: page, sequence: 3, build: 'b', packets: [] });
            const gone = await store.peek(page);
            const [waits] = await store.outbox();
            await store.markStored(page, [{ waiting: waits, sequence: 4 }]);
            const sent = await store.peek(page);
            await store.load(page);
            await store.keep(page, 1, 4, bytes(1, 2, 3, 50));
            return [held(gone), done, painted, held(sent), held(await store.peek(page)), (await store.heldDocuments()).size];
            """,
            "[[50],false,true,[],[1,2,3,50],1]"
        );

    [Fact]
    public void Room_is_made_by_pages_that_the_server_has_and_by_nothing_else() =>
        Same(
            """
            const [library, notebook, other] = ['s/library/s', 's/notebook/n', 's/page/other'];
            for (const id of [library, notebook, page, other]) await store.keep(id, 1, 1, bytes(1));
            await store.keepOutlines({ id: other, sequence: 1, build: 'b', packets: [bytes(9)] });
            await store.keepAnswer('list', [1]);
            await store.addToOutbox([row(50)]);
            await store.freeUp();
            const left = {};
            for (const id of [library, notebook, page, other]) left[id] = held(await store.peek(id)).length;
            return [left, (await store.peek(other)).outlines === undefined, await store.answer('list')];
            """,
            """[{"s/library/s":1,"s/notebook/n":1,"s/page/p":2,"s/page/other":0},true,[1]]"""
        );

    [Fact]
    public void Room_is_not_made_by_what_is_kept_for_the_road() =>
        Same(
            """
            for (const id of [page, 's/page/other']) await store.keep(id, 1, 1, bytes(1));
            await store.freeUp(new Set([page]));
            return [held(await store.peek(page)), held(await store.peek('s/page/other')), await store.reachOf([page, 's/page/other', 's/page/never'])];
            """,
            "[[1],[],[1,-1,-1]]"
        );

    [Fact]
    public void What_is_fetched_unopened_stays_off_when_it_was_taken_off_meanwhile_and_takes_nothing_of_what_is_here() =>
        Same(
            """
            await store.expect(page);
            await store.forget([page]);
            await store.keep(page, 1, 2, bytes(1, 2), true);
            await store.keepAnew(page, 2, bytes(1, 2), true, true);
            const locked = held(await store.peek(page));
            await store.expect(page);
            await store.forgetSpace('s');
            await store.keep(page, 1, 2, bytes(1, 2), true);
            await store.keepAnew(page, 2, bytes(1, 2), true, true);
            const left = held(await store.peek(page));
            const never = await store.reachOf([page]);
            await store.expect(page);
            await store.keep(page, 1, 2, bytes(1, 2), true);
            await store.addToOutbox([row(50)]);
            const { generation } = await store.expect(page);
            const done = await store.compact(page, bytes(1, 2), 2, generation);
            await store.keep(page, 3, 3, bytes(3), true);
            return [locked, left, never, held(await store.expect(page)), done, await store.reachOf([page])];
            """,
            "[[],[],[-1],[1,2,3,50],false,[3]]"
        );

    [Fact]
    public void What_is_here_from_the_beginning_without_a_gap_is_whole_and_nothing_else_is() =>
        Same(
            """
            const whole = [];
            const ask = async () => whole.push(await store.isWhole(page));
            await ask();
            await store.addToOutbox([row(50)]);
            // Written on without ever being told what the server has of it.
            await ask();
            await store.keepEmpty(page);
            await ask();
            const [one] = await store.outbox();
            // Somebody else wrote before it, and that is not here.
            await store.markStored(page, [{ waiting: one, sequence: 3 }]);
            await ask();
            await store.keep(page, 1, 2, bytes(1, 2));
            await ask();
            await store.freeUp();
            await ask();
            await store.keepEmpty(page);
            await ask();
            await store.keep(page, 1, 3, bytes(1, 2, 50));
            await ask();
            await store.forget([page]);
            await store.keepEmpty(page);
            await ask();
            return whole;
            """,
            "[false,false,true,false,true,false,false,true,false]"
        );

    [Fact]
    public void When_a_page_was_written_on_here_is_known_from_what_waits_and_from_what_was_sent() =>
        Same(
            """
            const times = async () => [...(await store.writtenHere((bytes) => bytes[0]))];
            await store.addToOutbox([row(50), row(70), row(60), { ...row(90), kind: 'notebook', document: 's/notebook/n' }]);
            const waiting = await times();
            const before = Date.now();
            await store.markStored(page, (await store.outbox()).slice(0, 3).map((waiting, i) => ({ waiting, sequence: i + 1 })));
            await store.freeUp();
            const [[id, at], ...others] = await times();
            return [waiting, id, at >= before, others];
            """,
            """[[["s/page/p",70]],"s/page/p",true,[]]"""
        );

    [Fact]
    public void How_a_page_was_painted_is_good_for_just_what_is_there() =>
        Same(
            """
            await store.keep(page, 1, 2, bytes(1, 2));
            const painted = { id: page, sequence: 2, build: 'b', packets: [bytes(9)] };
            const good = await store.keepOutlines(painted);
            const shown = (await store.load(page)).outlines !== undefined;
            await store.addToOutbox([row(10)]);
            const waiting = [(await store.load(page)).outlines === undefined, await store.keepOutlines(painted)];
            const [one] = await store.outbox();
            await store.markStored(page, [{ waiting: one, sequence: 5 }]);
            // Something beyond a gap is here, and is not painted.
            return [good, shown, waiting, (await store.load(page)).outlines === undefined];
            """,
            "[true,true,[true,false],true]"
        );

    [Fact]
    public void Only_what_was_not_sent_stays_of_a_person_who_leaves() =>
        Same(
            """
            await store.keep(page, 1, 2, bytes(1, 2));
            await store.keepAnswer('list', [1]);
            await store.addToOutbox([row(10), row(11)]);
            const [first] = await store.outbox();
            await store.markRefused([{ waiting: first, sentence: 'No.' }]);
            await store.keepUnsentOnly();
            return [held(await store.peek(page)), (await store.refused()).length, (await store.answer('list')) ?? null];
            """,
            "[[11],1,null]"
        );

    [Fact]
    public void Two_tabs_that_keep_at_the_same_time_keep_both() =>
        Same(
            """
            const other = await torture.store(name);
            await Promise.all([
              ...[1, 3, 5, 7].map((n) => store.keep(page, n, n, bytes(n))),
              ...[2, 4, 6, 8].map((n) => other.keep(page, n, n, bytes(n))),
              store.addToOutbox([row(20)]),
              other.addToOutbox([row(21)]),
            ]);
            const both = await other.peek(page);
            other.close();
            return [both.reached.complete, held(both).length];
            """,
            "[8,10]"
        );

    [Fact]
    public void A_picture_that_waits_to_be_sent_is_taken_away_by_nothing_but_its_arrival() =>
        Same(
            """
            const file = (size) => new Blob([new Uint8Array(size)]);
            const asset = (id, size, usedAt, more) => ({ space: 's', id, file: file(size), usedAt, ...more });
            const left = async () => (await Promise.all(['old', 'mine', 'not', 'new'].map((id) => store.assets.get('s', id)))).map((one) => one ? 1 : 0).join('');
            await store.assets.keep(asset('old', 100, 1));
            await store.assets.keep(asset('mine', 100, 2, { waiting: 1 }));
            await store.assets.keep(asset('not', 100, 3, { waiting: 1 }));
            await store.assets.keep(asset('new', 100, 4));
            // Fetched again meanwhile, it still waits.
            await store.assets.keep(asset('mine', 100, 5));
            const said = [(await store.assets.waiting()).map((one) => one.id).join(), await left()];
            await store.assets.settle('s', 'not', 'too large');
            await store.assets.trim(150);
            said.push(await left());
            await store.keepUnsentOnly();
            said.push(await left(), (await store.assets.refused()).map((one) => one.refused).join());
            await store.assets.settle('s', 'mine');
            await store.keepUnsentOnly();
            said.push(await left(), (await store.assets.waiting()).length);
            return said;
            """,
            "[\"mine,not\",\"1111\",\"0111\",\"0110\",\"too large\",\"0010\",0]"
        );

    [Fact]
    public void A_space_that_was_left_goes_but_for_what_was_never_sent_and_its_neighbours_stay() =>
        Same(
            """
            const at = (space) => `${space}/page/p`;
            const [left, stays, longer] = ['aa-1', 'bb-2', 'aa-11'];
            for (const space of [left, stays, longer]) {
              await store.keep(at(space), 1, 1, bytes(1));
              await store.keepOutlines({ id: at(space), sequence: 1, build: 'b', packets: [] });
              await store.assets.keep({ space, id: 'held', file: new Blob([]), usedAt: 1 });
              await store.assets.keep({ space, id: 'mine', file: new Blob([]), usedAt: 1, waiting: 1 });
            }
            await store.addToOutbox([{ space: left, kind: 'page', document: at(left), bytes: bytes(2) }]);
            await store.keepAnswer('/api/follow-ups', [1]);
            await store.forgetSpace(left);
            const said = [];
            for (const space of [left, stays, longer]) {
              const { batches, outlines } = await store.peek(at(space));
              said.push(batches.length, outlines ? 1 : 0, (await store.assets.get(space, 'held')) ? 1 : 0, (await store.assets.get(space, 'mine')) ? 1 : 0);
            }
            return [said.join(''), (await store.answer('/api/follow-ups')) === undefined];
            """,
            "[\"100111111111\",true]"
        );

    [Fact]
    public void A_store_that_another_tab_needs_in_a_newer_version_is_let_go_at_once_and_says_so() =>
        Same(
            """
            let told = false;
            const opening = torture.storeTold(name + '-upgraded', () => { told = true; });
            await opening;
            await new Promise((resolve, reject) => {
              const newer = indexedDB.open('calm-quill-' + name + '-upgraded', 99);
              newer.onsuccess = () => { newer.result.close(); resolve(); };
              newer.onblocked = () => reject(new Error('blocked'));
            });
            return told;
            """,
            "true"
        );

    [Fact]
    public void What_is_rehearsed_takes_no_number_no_time_and_no_document_of_the_session() =>
        Same(
            """
            const core = await torture.core();
            const { DocumentBridge, NotebookBridge, PenBridge } = core;
            DocumentBridge.Start('00000000000000ab', crypto.randomUUID());
            const notebook = DocumentBridge.Open(2);
            const root = '00000000-0000-0000-0000-000000000000';
            const make = (now) => NotebookBridge.Make(notebook, crypto.randomUUID(), 4, root, '', '', '', now);
            make(5);
            const [state, made, opened] = [DocumentBridge.EncodeState(notebook).join(), PenBridge.LastMade(), DocumentBridge.Open(1)];
            const parts = torture.rehearsals(core);
            for (const part of parts) part();
            // A part that fails leaves the session as it was, too.
            let failed = '';
            const broken = { ...core, NotebookBridge: { Make() { throw new Error('no room'); } } };
            try { torture.rehearsals(broken)[0](); } catch (problem) { failed = problem.message; }
            const same = DocumentBridge.EncodeState(notebook).join() === state && PenBridge.LastMade() === made;
            const number = (id) => Number.parseInt(id.split(/[-.:]/).at(-1), 10);
            const before = number(PenBridge.LastMade());
            const waiting = make(6);
            return [parts.length, failed, same, number(PenBridge.LastMade()) - before, DocumentBridge.WrittenAt(waiting.slice(4)), opened];
            """,
            """[3,"no room",true,1,6,2]"""
        );

    /// <summary>Runs a script over a fresh store and compares what it answers, as JSON.</summary>
    private void Same(string script, string wanted)
    {
        shared.Browser.Go("/");
        shared.Browser.Until(() => (bool)shared.Browser.Script("return globalThis.torture !== undefined")!, "the page");
        var answer = (string)
            shared.Browser.AsyncScript(
                $$"""
                const done = arguments[arguments.length - 1];
                (async () => {
                  const name = crypto.randomUUID();
                  const store = await torture.store(name);
                  const page = 's/page/p';
                  // A batch is any bytes here: one for each operation, by which it is known.
                  const bytes = (...numbers) => Uint8Array.from(numbers);
                  const row = (number) => ({ space: 's', kind: 'page', document: page, bytes: bytes(number) });
                  const held = ({ batches }) => batches.flatMap((batch) => [...batch.bytes]);
                  // The browser gives up so many of the next transactions that write.
                  const transaction = IDBDatabase.prototype.transaction;
                  const givingUp = (times) => {
                    IDBDatabase.prototype.transaction = function (...given) {
                      const made = transaction.apply(this, given);
                      if (given[1] === 'readwrite' && times-- > 0) queueMicrotask(() => made.abort());
                      return made;
                    };
                  };
                  const answer = await (async () => { {{script}} })();
                  store.close();
                  return JSON.stringify(answer);
                })().then(done, (problem) => done('threw ' + problem?.stack));
                """
            )!;
        Assert.False(answer.StartsWith("threw", StringComparison.Ordinal), answer);
        Assert.Equal(JsonSerializer.Serialize(JsonDocument.Parse(wanted)), JsonSerializer.Serialize(JsonDocument.Parse(answer)));
    }
}
