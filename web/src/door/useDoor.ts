import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { renewed } from '../shared/renewed'
import { answered, api, type Device, type DoorState } from '../api/client'

/** Whether this is the workshop's own machine, and who this device was let in as. */
export function useDoorState() {
  return useQuery({
    queryKey: ['door'],
    queryFn: () => answered<DoorState>(api.GET('/api/v1/door')),
  })
}

/** The devices that are let in, looked at again while the sheet is open. */
export function useDevices() {
  const client = useQueryClient()
  const devices = useQuery({
    queryKey: ['devices'],
    queryFn: () => answered<Device[]>(api.GET('/api/v1/door/devices')),
    refetchInterval: 3000,
  })
  async function shutOut(device: Device) {
    await answered(
      api.DELETE('/api/v1/door/devices/{device_id}', {
        params: { path: { device_id: device.id } },
      }),
    )
    await renewed(client, ['devices'])
  }
  return { devices, shutOut }
}
