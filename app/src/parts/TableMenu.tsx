import { ActionIcon, Menu } from '@mantine/core';
import { IconCopy, IconDownload, IconTable } from '../icons';
import { copyTable, saveTable } from '../services/takeTable';
import type { TableData } from '../services/tableText';

interface Props {
  table: () => TableData;
  /** its title, where the table takes long to make */
  title?: string;
}

/** Takes a table along that is shown with controls in it: as tab-separated text, or as CSV. */
export function TableMenu({ table, title = table().title }: Props) {
  return (
    <Menu position="bottom-end" shadow="sm">
      <Menu.Target>
        <ActionIcon size="sm" variant="default" aria-label={`Export: ${title}`}>
          <IconTable size={14} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item leftSection={<IconCopy size={15} />} onClick={() => copyTable(table())}>
          Copy the table
        </Menu.Item>
        <Menu.Item leftSection={<IconDownload size={15} />} onClick={() => saveTable(table())}>
          Save as CSV
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
