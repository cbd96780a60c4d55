import { describe, expect, it } from 'vitest'
import { camtEntries, matchEntries, type Open, statementTable, tableEntries } from './statement.ts'

/** A statement by the structure of ISO 20022's message definition, camt.053.001.08 (BankToCustomerStatement). */
const CAMT = `<?xml version="1.0" encoding="UTF-8"?>
<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt>
<GrpHdr><MsgId>1</MsgId><CreDtTm>2026-11-24T18:00:00</CreDtTm></GrpHdr>
<Stmt><Id>1</Id><Acct><Id><IBAN>PT50000201231234567890154</IBAN></Id></Acct>
<Ntry><Amt Ccy="EUR">95.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts>
 <BookgDt><Dt>2026-11-24</Dt></BookgDt><AcctSvcrRef>A1</AcctSvcrRef>
 <NtryDtls><TxDtls><RltdPties><Dbtr><Pty><Nm>Tomé Arrais</Nm></Pty></Dbtr></RltdPties>
 <RmtInf><Strd><CdtrRefInf><Ref>RF18539007547034</Ref></CdtrRefInf></Strd></RmtInf></TxDtls></NtryDtls></Ntry>
<Ntry><Amt Ccy="EUR">150.50</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts>
 <BookgDt><DtTm>2026-11-23T09:00:00Z</DtTm></BookgDt>
 <NtryDtls><TxDtls><Amt Ccy="EUR">100.00</Amt><RmtInf><Ustrd>Voice</Ustrd><Ustrd>lesson &amp; more</Ustrd></RmtInf></TxDtls>
 <TxDtls><Amt Ccy="EUR">50.50</Amt><RltdPties><Dbtr><Nm>Wanda Okoro</Nm></Dbtr></RltdPties></TxDtls></NtryDtls></Ntry>
<Ntry><Amt Ccy="EUR">12.00</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>2026-11-23</Dt></BookgDt></Ntry>
<Ntry><Amt Ccy="EUR">9.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>PDNG</Sts><BookgDt><Dt>2026-11-23</Dt></BookgDt></Ntry>
</Stmt></BkToCstmrStmt></Document>`
const decimals = (): number => 2

describe('a bank statement', () => {
  it('in ISO 20022 gives its booked credits, each payment of a batch by itself', () => {
    const entries = camtEntries(CAMT, decimals)
    expect(entries.map(({ on, amount, name, text }) => [on, amount, name, text])).toEqual([
      ['2026-11-24', 9_500, 'Tomé Arrais', 'RF18539007547034'],
      ['2026-11-23', 10_000, '', 'Voice lesson & more'],
      ['2026-11-23', 5_050, 'Wanda Okoro', ''],
    ])
    expect(new Set(entries.map(({ source }) => source)).size).toBe(3)
    expect(camtEntries(CAMT, decimals)).toEqual(entries)
  })

  it.each([
    ['', 'not a statement'],
    ['<Document><Other/></Document>', 'not a statement'],
    ['<!DOCTYPE x [<!ENTITY a "b">]><Document/>', 'document type'],
    [CAMT.replace('95.00', '95.001'), 'more decimals'],
    [CAMT.replace('95.00', 'many'), 'not an amount'],
  ])('that is none is refused: %#', (xml, why) => {
    expect(() => camtEntries(xml, decimals)).toThrow(why)
  })

  it('as a table is read by the columns one names, in the hands of several banks', () => {
    const { head, rows } = statementTable(
      'Day;Who;Amount;For\n24.11.2026;Tomé;1.095,50;RF18539007547034\n2026-11-23;Wanda;+12.5;x\n22/11/2026;Out;-9,00;y\nsum;;;',
    )
    expect(head).toEqual(['Day', 'Who', 'Amount', 'For'])
    const entries = tableEntries(rows, { date: 0, name: 1, amount: 2, text: 3 }, 'EUR', 2)
    expect(entries.map(({ on, amount, name }) => [on, amount, name])).toEqual([
      ['2026-11-24', 109_550, 'Tomé'],
      ['2026-11-23', 1_250, 'Wanda'],
    ])
    const twice = tableEntries([...rows, rows[0]!], { date: 0, amount: 2, text: 3 }, 'EUR', 2)
    expect(new Set(twice.map(({ source }) => source)).size).toBe(3)
    expect(() => statementTable('nothing')).toThrow('not a table')
  })
})

describe('what an entry is for', () => {
  const open: Open[] = [
    { booking: 'a', name: 'Tomé Arrais', reference: 'RF18539007547034', open: 9_500, currency: 'EUR' },
    { booking: 'b', name: 'Wanda Okoro', reference: 'RF00OTHER', open: 5_050, currency: 'EUR' },
  ]
  const of = (text: string, amount: number, name = '', currency = 'EUR') =>
    matchEntries(
      [{ source: 's', on: '2026-11-24' as never, amount, currency, name, text }],
      open,
      new Set(),
    )[0]!

  it('is sure by its reference and amount, a doubt by less, and nothing that was noted before', () => {
    expect(of('rf18 5390 0754 7034', 9_500)).toMatchObject({ sure: 'a', perhaps: [] })
    expect(of('RF18539007547034', 9_000)).toMatchObject({ perhaps: [{ booking: 'a', why: 'reference' }] })
    expect(of('for the lesson', 5_050, 'OKORO, WANDA')).toMatchObject({
      perhaps: [{ booking: 'b', why: 'name' }],
    })
    expect(of('', 1, 'Tome Arrais')).toMatchObject({ perhaps: [{ booking: 'a', why: 'amount' }] })
    expect(of('RF18539007547034', 9_500, '', 'CHF').sure).toBeUndefined()
    expect(of('hello', 5_050, 'Somebody')).toMatchObject({ perhaps: [] })
    const again = matchEntries(
      [
        {
          source: 's',
          on: '2026-11-24' as never,
          amount: 9_500,
          currency: 'EUR',
          name: '',
          text: 'RF18539007547034',
        },
      ],
      open,
      new Set(['s']),
    )
    expect(again[0]).toMatchObject({ noted: true })
  })
})
