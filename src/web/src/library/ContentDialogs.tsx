import { plural, t } from '@lingui/core/macro';
import { useNavigate } from 'react-router';
import { doing } from '../data/doing';
import { properties } from '../core/runtime';
import { type Space, useSession } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { FolderDialog, NotebookDialog } from './lookDialogs';
import type { Asking } from './itemMenu';
import { LensDialog } from './LensDialog';
import { LockDialog } from '../locks/LockDialog';
import { openPath, root } from '../model/items';
import { MoveDialog } from '../moving/MoveDialog';
import type { ShownPlace } from './places';
import { ShareDialog } from '../sharing/ShareDialog';
import { TagDialog } from '../tags/TagDialog';
import type { ItemActions } from './useItemActions';
import type { Personal } from '../data/usePersonal';

interface ContentDialogsProps {
  asking: Asking | { what: 'newLens' | 'lens' };
  place: ShownPlace;
  space?: Space;
  actions: ItemActions;
  personal: Personal;
  rule: string;
  onClose: () => void;
  onSavedLens: (library: string, lens: string) => void;
}

/** The dialogue that was asked for, about things in a list. */
export function ContentDialogs({
  asking,
  place,
  space,
  actions,
  personal,
  rule,
  onClose,
  onSavedLens,
}: ContentDialogsProps) {
  const navigate = useNavigate();
  const workspace = useWorkspace();
  const { spaces } = useSession();
  const library = place.libraries[0]!;
  switch (asking.what) {
    case 'newNotebook':
      return (
        <NotebookDialog
          title={t`New notebook`}
          confirm={t`Make the notebook`}
          space={library.space}
          onClose={onClose}
          onConfirm={async (look) => {
            const made = library.newNotebook(place.node?.id ?? root, look.name, look);
            await navigate(openPath(library.space, made.notebook, made.page));
          }}
        />
      );
    case 'move': {
      const [first] = asking.items;
      return (
        <MoveDialog
          title={
            asking.items.length === 1
              ? t`Move “${first!.title}”`
              : plural(asking.items.length, { one: 'Move # thing', other: 'Move # things' })
          }
          space={first!.space}
          without={asking.items.map((item) => item.id)}
          onClose={onClose}
          onMove={(toSpace, folder) => actions.move(asking.items, toSpace, folder)}
        />
      );
    }
    case 'tag':
      return (
        <TagDialog
          title={
            asking.items.length === 1
              ? t`Tags of “${asking.items[0]!.title}”`
              : plural(asking.items.length, { one: 'Tags of # thing', other: 'Tags of # things' })
          }
          library={actions.library(asking.items[0]!)}
          carried={actions.carried(asking.items)}
          onSet={(tag, on) => actions.tag(asking.items, tag, on)}
          onClose={onClose}
        />
      );
    case 'share':
      return (
        <ShareDialog
          space={asking.item.space}
          thing={{ node: asking.item.id, name: asking.item.title, isFolder: asking.item.kind === 'folder' }}
          onClose={onClose}
        />
      );
    case 'look': {
      const { item } = asking;
      const own = actions.library(item);
      const node = own.find(item.id)!;
      if (item.kind === 'folder') {
        return (
          <FolderDialog
            title={t`Folder “${node.name}”`}
            confirm={t`Change it`}
            look={node}
            onClose={onClose}
            onConfirm={(look) =>
              doing(workspace, t`The folder is changed.`, () => {
                if (look.name !== node.name) own.rename(node.id, look.name);
                if (look.colour !== node.colour) own.set(node.id, properties.colour, look.colour);
                if (look.icon !== node.icon) own.set(node.id, properties.icon, look.icon);
              })
            }
          />
        );
      }
      return (
        <NotebookDialog
          title={t`Notebook “${node.name}”`}
          confirm={t`Change it`}
          look={node}
          space={own.space}
          onClose={onClose}
          onConfirm={(look) =>
            doing(workspace, t`The notebook is changed.`, () => {
              if ((look.source ?? '') !== (node.source ?? '')) own.set(node.id, properties.source, look.source ?? '');
              if (look.name !== node.name) own.rename(node.id, look.name);
              if (look.colour !== node.colour) own.set(node.id, properties.colour, look.colour);
              if (look.cover !== node.cover) own.set(node.id, properties.cover, look.cover);
              if (look.paper !== node.paper) own.set(node.id, properties.paper, look.paper);
            })
          }
        />
      );
    }
    case 'lock':
      return (
        <LockDialog
          space={spaces.find((one) => one.id === asking.item.space)!}
          notebook={asking.item.id}
          name={asking.item.title}
          onClose={onClose}
        />
      );
    case 'newLens':
      return (
        <LensDialog
          space={spaces.find((one) => one.id === library.space)!}
          confirm={t`Save the lens`}
          onClose={onClose}
          onConfirm={({ name, icon, shared }) => {
            const isOwn = space?.personal || shared;
            const keeper = isOwn ? library : personal.library;
            onSavedLens(keeper.space, keeper.newLens(name, icon, rule, isOwn ? undefined : library.space));
          }}
        />
      );
    case 'lens': {
      const lens = place.lens!;
      const keeper = place.keeper ?? library;
      return (
        <LensDialog
          space={spaces.find((one) => one.id === keeper.space)!}
          look={{ name: lens.name, icon: lens.icon, shared: false }}
          confirm={t`Change it`}
          onClose={onClose}
          onConfirm={(look) => {
            if (look.name !== lens.name) keeper.rename(lens.id, look.name);
            if (look.icon !== lens.icon) keeper.set(lens.id, properties.icon, look.icon);
          }}
        />
      );
    }
  }
}
