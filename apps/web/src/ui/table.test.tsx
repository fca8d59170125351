import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Table, type Column } from './table';

const columns: Column<{ id: string }>[] = [
  { key: 'id', head: 'Id', order: 'id', cell: ({ id }) => id },
  { key: 'x', head: 'X', cell: () => 'x' },
];
const shared = { label: 'Things', columns, rows: [{ id: 'a' }], keyOf: ({ id }: { id: string }) => id };

describe('a table', () => {
  it('is ordered by its heads, and says by which', async () => {
    const asked: string[] = [];
    render(<Table {...shared} order="id" onOrder={(order) => asked.push(order)} />);
    await userEvent.click(screen.getByRole('button', { name: 'Id' }));
    expect(asked).toEqual(['id']);
    expect(screen.getByRole('columnheader', { name: 'Id' })).toHaveAttribute('aria-sort', 'ascending');
    expect(screen.getByRole('columnheader', { name: 'X' })).not.toHaveAttribute('aria-sort');
  });

  it('says that it is the other way round, and draws over the whole width what is no row of cells', () => {
    const rows = [{ id: 'head' }, { id: 'a' }];
    render(
      <Table
        {...shared}
        rows={rows}
        order="id"
        isDown
        onOrder={() => undefined}
        wide={({ id }) => (id === 'head' ? <b>All of A</b> : undefined)}
      />,
    );
    expect(screen.getByRole('columnheader', { name: 'Id' })).toHaveAttribute('aria-sort', 'descending');
    const [, head, line] = screen.getAllByRole('row');
    expect([head, line].map((row) => row?.querySelectorAll('[role=cell]').length)).toEqual([1, 2]);
    expect(head).toHaveTextContent('All of A');
  });

  it('has no button where nobody listens', () => {
    render(<Table {...shared} />);
    expect(screen.queryByRole('button')).toBeNull();
    expect(screen.getByRole('columnheader', { name: 'Id' })).not.toHaveAttribute('aria-sort');
  });
});
