import type { Highs, Model as HighsModel } from 'highs'
import type { Model } from '../../core/order/model'

/** How far a solver is: the best it has found, and what no answer can be better than. */
export type Progress = { values: Float64Array; objective: number; bound: number }
export type Solved =
  | ({ status: 'proved' | 'near enough' | 'out of time' } & Progress)
  /** No answer fits all that is wished. */
  | { status: 'impossible' }

/** When a solver may stop: within this share of the best there can be, or after so long. */
export type Effort = { gap: number; seconds: number }

/** What is left between an answer and the best that there can be, as a share of the answer. */
export const gapOf = ({ objective, bound }: Pick<Progress, 'objective' | 'bound'>): number =>
  Math.max(0, objective - bound) / Math.max(1e-9, Math.abs(objective))

/**
 * Makes a model as small as it can be. Each better answer is told as it is found; `start` is one to begin from. It works until it is done: whoever wants to stop
 * it ends the worker that it runs in.
 */
export function solve(
  highs: Highs,
  model: Model,
  { gap, seconds }: Effort,
  tell: (better: Progress) => void = () => {},
  start?: Float64Array,
): Solved {
  // nothing is asked, and a solver has no answer to that
  if (model.columns.length === 0) return { status: 'proved', values: new Float64Array(), objective: 0, bound: 0 }
  return highs.withModel(modelData(highs, model), (solver): Solved => {
    solver.options.set('output_flag', false)
    solver.options.set('mip_rel_gap', gap)
    solver.options.set('time_limit', seconds)
    if (start) solver.setSolution({ colValue: start })
    const { callbackType, modelStatus } = highs.constants
    solver.run({
      [callbackType.mipImprovingSolution]: ({ data }) => {
        const values = data.mip_solution
        if (values && data.objective_function_value !== undefined)
          tell({
            values: Float64Array.from(values),
            objective: data.objective_function_value,
            bound: data.mip_dual_bound ?? 0,
          })
      },
    })
    const status = solver.getModelStatus()
    if (status === modelStatus.infeasible) return { status: 'impossible' }
    const { values, objective } = solutionOf(solver)
    const bound = Number(solver.info.get('mip_dual_bound'))
    if (status !== modelStatus.optimal) return { status: 'out of time', values, objective, bound }
    return { status: gapOf({ objective, bound }) > 1e-6 ? 'near enough' : 'proved', values, objective, bound }
  })
}

function solutionOf(solver: HighsModel) {
  return { values: Float64Array.from(solver.getSolution().colValue), objective: solver.getObjectiveValue() }
}

/** The model row by row, as the solver takes it. */
function modelData(highs: Highs, { columns, rows }: Model) {
  const starts = [0]
  const indices: number[] = []
  const values: number[] = []
  for (const { terms } of rows) {
    for (const [column, factor] of terms) {
      indices.push(column)
      values.push(factor)
    }
    starts.push(indices.length)
  }
  const { integer, continuous } = highs.constants.variableType
  return {
    numCols: columns.length,
    numRows: rows.length,
    colCost: columns.map(({ cost }) => cost),
    colLower: columns.map(() => 0),
    colUpper: columns.map(({ most }) => most),
    rowLower: rows.map(({ least }) => least),
    rowUpper: rows.map(({ most }) => most),
    matrix: { format: 'csr' as const, numRows: rows.length, numCols: columns.length, starts, indices, values },
    integrality: columns.map(({ whole }) => (whole ? integer : continuous)),
  }
}
