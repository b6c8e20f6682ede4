// @vitest-environment happy-dom
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Component } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { queries } from '@/api/policy'
import { useSession } from '@/stores/session'
import { answering, asked, forget, refusing } from '@/testing/server'

vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api: (await import('@/testing/server')).api }))

import SignIn from '../SignIn.vue'
import AccountView from './AccountView.vue'
import InvitationView from './InvitationView.vue'
import KitchenView from './KitchenView.vue'
import OutboxView from './OutboxView.vue'

const router = createRouter({
  history: createMemoryHistory(),
  routes: [{ path: '/:rest(.*)*', name: 'sign-in', component: { template: '<i />' } }],
})

/** The account service: what it says to each request in turn, and what it was asked. */
const sent: { path: string; method: string; body: Record<string, unknown> }[] = []
function service(answers: Record<string, { status: number; body?: object }[]>): void {
  vi.stubGlobal('fetch', (url: string, options: { method: string; body?: string }) => {
    const path = url.replace('/_allauth/browser/v1/', '')
    sent.push({ path, method: options.method, body: JSON.parse(options.body ?? '{}') as Record<string, unknown> })
    const answer = answers[`${options.method} ${path}`]?.shift() ?? { status: 200, body: { data: [] } }
    return Promise.resolve(new Response(JSON.stringify(answer.body ?? {}), { status: answer.status }))
  })
}
const wants = (flow: string): { status: number; body: object } => ({
  status: 401,
  body: { data: { flows: [{ id: 'login' }, { id: flow, is_pending: true }] }, meta: { is_authenticated: false } },
})
async function open(view: Component, props: object = {}): Promise<VueWrapper> {
  const mounted = mount(view, { props, global: { plugins: [router] } })
  await flushPromises()
  return mounted
}
const press = async (view: VueWrapper, text: string): Promise<void> => {
  await view
    .findAll('button')
    .find((b) => b.text() === text)
    ?.trigger('click')
  await flushPromises()
}
const submit = async (view: VueWrapper, at = 0): Promise<void> => {
  await view.findAll('form')[at]?.trigger('submit')
  await flushPromises()
}

beforeEach(() => {
  setActivePinia(createPinia())
  forget()
  queries.clear()
  sent.length = 0
  answering('/me', { id: 1, email: 'a@b.test', kitchens: [], erased_at: null })
  answering('/words', {})
  refusing('/outbox', 404, 'this server has no outbox')
})
afterEach(() => {
  vi.unstubAllGlobals()
})

describe('signing in', () => {
  it('asks for the code of the letter in the same place, and keeps asking while it is wrong', async () => {
    service({
      'POST auth/signup': [wants('verify_email')],
      'POST auth/email/verify': [{ status: 400, body: { errors: [{ message: 'Incorrect code.' }] } }, { status: 200 }],
    })
    const view = await open(SignIn)
    await press(view, 'Create account')
    await view.get('input[type=email]').setValue('a@b.test')
    await view.get('input[type=password]').setValue('a-rather-long-one')
    await submit(view)
    expect(view.text()).toContain('We sent a code to a@b.test')
    expect(view.find('input[type=password]').exists()).toBe(false)
    await view.get('input').setValue('NOT-IT')
    await submit(view)
    expect(view.get('[role=alert]').text()).toBe('Incorrect code.')
    await view.get('input').setValue('ABCD-EFGH')
    await submit(view)
    expect(sent.at(-1)).toMatchObject({ path: 'auth/email/verify', body: { key: 'ABCD-EFGH' } })
    expect(useSession().me?.email).toBe('a@b.test')
  })

  it('asks for the second factor, and for a new password where the old one is forgotten', async () => {
    service({ 'POST auth/login': [wants('mfa_authenticate')], 'POST auth/password/request': [wants('password_reset_by_code')] })
    const view = await open(SignIn)
    await view.get('input[type=email]').setValue('a@b.test')
    await view.get('input[type=password]').setValue('a-rather-long-one')
    await submit(view)
    expect(view.text()).toContain('authenticator')
    await press(view, 'Back to sign-in')
    await press(view, 'Forgot your password?')
    await submit(view)
    expect(view.findAll('input').map((i) => i.attributes('type'))).toEqual(['text', 'password'])
  })
})

describe('the account', () => {
  beforeEach(() => {
    answering('/account/history', {
      rows: [
        {
          id: 5,
          at: '2026-11-26T10:00:00Z',
          who: '',
          action: 'sign-in',
          text: 'entered a wrong password',
          place: '203.0.113.9',
          refused: true,
        },
      ],
      before: 0,
    })
  })

  it('shows where it is signed in and what was refused, and signs out there', async () => {
    const row = { ip: '198.51.100.4', created_at: 1_790_000_000, user_agent: 'Mozilla/5.0 (X11; Linux x86_64) Firefox/140.0' }
    service({
      'GET auth/sessions': [
        {
          status: 200,
          body: {
            data: [
              { ...row, id: 1, is_current: true },
              { ...row, id: 2, is_current: false },
            ],
          },
        },
      ],
    })
    const view = await open(AccountView)
    expect(view.text()).toContain('Firefox 140 on Linux')
    expect(view.get('.refused').text()).toContain('entered a wrong password')
    await press(view, 'Sign out this device')
    expect(sent.find((s) => s.method === 'DELETE')).toMatchObject({ path: 'auth/sessions', body: { sessions: [2] } })
  })

  it('asks for the password once more before what matters, and then does it', async () => {
    const again = { status: 401, body: { data: { flows: [{ id: 'reauthenticate' }] }, meta: { is_authenticated: true } } }
    service({
      'GET account/authenticators/totp': [{ status: 404, body: { meta: { secret: 'SECRET' } } }],
      'POST account/authenticators/totp': [again, { status: 200 }],
      'GET account/authenticators/recovery-codes': [{ status: 200, body: { data: { unused_codes: ['11112222'] } } }],
      'POST auth/reauthenticate': [{ status: 400, body: { errors: [{ message: 'Incorrect password.' }] } }, { status: 200 }],
    })
    const view = await open(AccountView)
    await press(view, 'Set up an authenticator')
    expect(view.text()).toContain('SECRET')
    await view.get('.factor input').setValue('123456')
    await view.get('.factor form').trigger('submit')
    await flushPromises()
    for (const password of ['wrong', 'right']) {
      await view.get('.again input').setValue(password)
      await view.get('.again').trigger('submit')
      await flushPromises()
      if (password === 'wrong') expect(view.get('.again [role=alert]').text()).toBe('Incorrect password.')
    }
    expect(sent.filter((s) => s.path === 'account/authenticators/totp' && s.method === 'POST')).toHaveLength(2)
    expect(view.text()).toContain('11112222')
  })
})

describe('people of a kitchen', () => {
  const enter = (role: string): void => {
    const session = useSession()
    session.me = {
      id: 1,
      email: 'a@b.test',
      erased_at: null,
      kitchens: [
        {
          id: 3,
          name: 'Stall',
          role,
          rights: role === 'owner' ? ['members.edit', 'history.read', 'kitchen.close'] : ['view'],
          erased_at: null,
        },
      ],
    } as unknown as typeof session.me
    answering('/members', [
      { id: 1, email: 'a@b.test', role },
      { id: 2, email: 'c@d.test', role: 'baker' },
    ])
    answering('/invitations', [{ id: 9, email: 'new@e.test', role: 'viewer', valid_until: '2026-12-01T00:00:00Z' }])
    answering('/history', { rows: [], before: 0 })
  }

  it('an owner asks in, sees who has not come yet, and ends the kitchen only by its name', async () => {
    enter('owner')
    const view = await open(KitchenView)
    expect(view.text()).toContain('new@e.test')
    await view.get('input[type=email]').setValue('x@y.test')
    await submit(view)
    expect(asked.find((a) => a.method === 'POST')).toMatchObject({ body: { email: 'x@y.test', role: 'baker' } })
    const end = view.findAll('button').find((b) => b.text() === 'Delete kitchen')
    expect(end?.attributes('disabled')).toBeDefined()
    await view.get('input[placeholder="Stall"]').setValue('Stall')
    expect(end?.attributes('disabled')).toBeUndefined()
  })

  it('a viewer may only leave', async () => {
    enter('viewer')
    const view = await open(KitchenView)
    expect(view.findAll('button').map((b) => b.text())).toEqual(['Leave kitchen'])
  })
})

describe('letters', () => {
  it('an invitation tells the wrong person, and lets the right one in', async () => {
    const seen = {
      kitchen: 'Stall',
      role: 'baker',
      by: 'o@b.test',
      email: 'a…@b.test',
      yours: false,
      signed_in: 'x@y.test',
      valid_until: '2026-12-01T00:00:00Z',
    }
    answering('/{key}', seen)
    expect((await open(InvitationView, { code: 'k' })).text()).toContain('signed in as x@y.test')
    answering('/{key}', { ...seen, yours: true, kitchen_id: 3 })
    const view = await open(InvitationView, { code: 'k' })
    await press(view, 'Join kitchen')
    expect(asked.some((a) => a.method === 'POST' && a.path === '/api/invitations/{key}')).toBe(true)
  })

  it('links in a letter can be followed, and nothing in it is markup', async () => {
    answering('/outbox', [
      { to: 'a@b.test', subject: 'S', text: 'go to http://localhost/invitation/k\n<img src=x>', at: '2026-11-26T10:00:00Z' },
    ])
    const view = await open(OutboxView)
    expect(view.get('article a').attributes('href')).toBe('http://localhost/invitation/k')
    expect(view.find('img').exists()).toBe(false)
    view.unmount()
  })
})
